using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Reading;

/// <summary>A text, as it was read.</summary>
public sealed record CompiledText(string? Html);

/// <summary>A term as screens want it.</summary>
public sealed record CompiledTerm(Term Term, IReadOnlyList<TermWeek> Weeks, IReadOnlyList<ClassDay> ClassDays);

/// <summary>
/// Compiled things, from the cache where their counters stand there. Whoever asks first may go away meanwhile: others
/// wait for the same answer, so a compilation is not cancelled with a request.
/// </summary>
public sealed class PlanCache(Database database, CompileCache cache)
{
    /// <summary>The edition that the address names, as of the counter read with who asks.</summary>
    public Task<EditionPlan> Edition(Access access) =>
        Edition(access.Edition ?? throw Problem.Unknown(), access.EditionVersion, access.TermVersion);

    /// <summary>The same without the sections that had ended before the moment in view.</summary>
    public async Task<EditionPlan> Teaching(Access access, Viewpoint viewpoint)
    {
        var plan = await Edition(access);
        return plan.On(plan.Term.Local(viewpoint.At).Date);
    }

    /// <summary>An edition as of counters read elsewhere.</summary>
    public Task<EditionPlan> Edition(EditionCounters known) => Edition(known.Id, known.Version, known.TermVersion);

    /// <summary>An edition as of its own and its term's counter.</summary>
    public Task<EditionPlan> Edition(Id<Edition> edition, long version, long termVersion) =>
        cache.Get(CompileKey.Of("edition", edition.Value, version, termVersion), async () =>
        {
            var plan = await EditionStore.Read(database, edition, CancellationToken.None) ?? throw Problem.Unknown();
            return (plan, plan.Version, plan.Weight);
        });

    /// <summary>The text that a student may read; null: there is none, or it is not for them to read now.</summary>
    public async Task<string?> Text(Sight sight) =>
        sight.Body is null ? null : (await cache.Get(CompileKey.Of($"body {sight.Body}", 0, 0), async () =>
                {
                    // Texts are kept under what they say: one that was read is never another.
                    var html = await database.Read(connection => BodyStore.Read(connection, sight), CancellationToken.None);
                    return (new CompiledText(html), 0, 200 + (2L * (html?.Length ?? 0)));
                })).Html;

    /// <summary>Rubrics by what they are kept under: all of those that are named.</summary>
    public async Task<IReadOnlyDictionary<string, WrittenRubric>> Rubrics(IEnumerable<string?> hashes)
    {
        var named = hashes.OfType<string>().Distinct().Order(StringComparer.Ordinal).ToList();
        return named.Count == 0
            ? new Dictionary<string, WrittenRubric>()
            : await cache.Get(CompileKey.Of($"rubrics {string.Join(' ', named)}", 0, 0), async () =>
            {
                var found = await database.Read(connection => BodyStore.Rubrics(connection, named), CancellationToken.None);
                return (found, 0, 10_000L * found.Count);
            });
    }

    /// <summary>The term of the edition or section that the address names.</summary>
    public Task<CompiledTerm> Term(Access access)
    {
        var term = access.Term ?? throw Problem.Unknown();
        return cache.Get(CompileKey.Of("term", term.Value, access.TermVersion), async () =>
        {
            var stored = await TermStore.Read(database, term, CancellationToken.None) ?? throw Problem.Unknown();
            var days = ClassDayMaker.Of(stored.Term);
            return (new CompiledTerm(stored.Term, ClassDayMaker.Weeks(stored.Term), days), stored.Version, 2_000 + 100L * days.Length);
        });
    }
}
