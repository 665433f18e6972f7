using System.Data;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="N">The hand-in that was read.</param>
/// <param name="Text">The feedback, up to 20,000 characters; it may be empty.</param>
/// <param name="Again">True: to try again. False: to go on, which opens what hangs on it.</param>
/// <param name="Alone">Of what several handed in together: only to the one whose piece this is. False: to all of them.</param>
/// <param name="Mark">Null: in words only, or no mark yet.</param>
/// <param name="Close">True: what is open only because of an earlier mark that this one replaces closes. False: it stays open.</param>
public sealed record GiveBackRequest(
    Id<PieceRow> Work,
    int N,
    string Text,
    bool Again,
    bool Alone = false,
    MarkGiven? Mark = null,
    bool Close = false
)
{
    /// <summary>In the margin, each at the place it is about; 100 at most.</summary>
    public IReadOnlyList<Remark> Remarks { get; init; } = [];
}

/// <param name="Given">False if this was only a preview and nothing was written.</param>
/// <param name="Opens">What opens for the student by it.</param>
/// <param name="Closes">What the one whose piece it is can read no longer, where an earlier mark had opened it.</param>
public sealed record GiveBackAnswer(bool Given, string Name, IReadOnlyList<string> Opens, IReadOnlyList<Id<Item>> Closes, string Sentence)
    : IAnswer<GiveBackAnswer>
{
    /// <summary>Whether anything stays open only because of an earlier mark, unless it is closed.</summary>
    public bool Stays { get; init; }

    public GiveBackAnswer AsPreview() => this with { Given = false };
}

/// <summary>
/// Gives a piece of work back. It cannot be taken back: the student may have read it. Given again, the later feedback and mark stand beside
/// the earlier ones and count in their place.
/// </summary>
public sealed class GiveBack : IWorkCommand<GiveBackRequest, EditionPlan, GiveBackAnswer>
{
    private const int Longest = 20_000;

    public static string Name => "give-back";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<GiveBackRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, GiveBackRequest request) => plans.Edition(access);

    public static async Task<GiveBackAnswer> Do(WorkContext work, EditionPlan plan, GiveBackRequest request)
    {
        var (connection, viewpoint, section) = (work.Connection, work.Viewpoint, work.Section);
        var piece = await PieceInHand.Read(work, plan, request);
        var (item, mark) = (piece.Item, piece.Mark);
        var all = new List<(Id<PieceRow> Work, Id<Person> Person, int N)> { (request.Work, piece.Person, request.N) };
        if (!request.Alone)
            all.AddRange(await WorkStore.HandedInWith(connection, section, request.Work, request.N));
        var (names, opens) = (new List<string>(), new List<(string Name, string Opens)>());
        var (stays, unused) = (false, new List<string>());
        var (closes, closing) = (new List<Id<Item>>(), new List<string>());
        foreach (var (which, person, n) in all)
        {
            var before = await OpensBy.Open(connection, plan, person, viewpoint.At);
            await WorkStore.GiveBack(
                connection,
                which,
                n,
                person,
                piece.Row,
                section,
                work.Access.Person.Id,
                request.Text.Trim(),
                request.Again,
                mark,
                which == request.Work || piece.Remarks.Count == 0
                    ? piece.Remarks
                    : piece.Written.On(await WorkStore.Remarkable(connection, which, n), piece.Remarks),
                viewpoint.At,
                work.Key
            );
            await ReaderStore.End(connection, piece.Row, person, null);
            foreach (var (by, words) in await ReadyStore.Beside(connection, which, n, work.Access.Person.Id))
                if (words != ReadyMark.Words(request.Again, mark))
                    unused.Add($"{by} left another mark for it ({words}), which does not count.");
            await ReadyStore.End(connection, section, which);
            var name = await AccessStore.NameOf(connection, person) ?? "";
            names.Add(name);
            var after = await OpensBy.Open(connection, plan, person, viewpoint.At);
            opens.AddRange(OpensBy.Since(plan, before, after).Select(opened => (name, opened)));
            if (OpensBy.Since(plan, after, before) is { Count: > 0 } closed)
                closing.Add($"{Counting.Joined(closed, "and")} {(closed.Count == 1 ? "closes" : "close")} for {name}.");
            var own = new Dictionary<Id<Person>, string> { [person] = name };
            var open = new Dictionary<Id<Person>, IReadOnlyList<Ref<Item>>> { [person] = after };
            var earlier = await OpensBy.ByEarlierScores(
                work,
                plan,
                mark is null || request.Again || MarkShare.Of(mark) is null ? [] : [(person, piece.Row)],
                open,
                request.Close
            );
            stays |= earlier.Count > 0;
            closing.AddRange(OpensBy.Told(plan, own, open, open, earlier, request.Close));
            if (which == request.Work)
                closes.AddRange(before.Except(after).Select(one => plan.Row(one).Id).Select(id => new Id<Item>(id)));
        }
        return new(
            true,
            Counting.Joined(names, "and"),
            [.. opens.Select(one => one.Opens).Distinct()],
            closes,
            string.Join(' ', closing.Concat(unused).Prepend(Sentence(plan.Schedule.CodeOf[item.Ref], names, opens, request.Again, mark)))
        )
        {
            Stays = stays,
        };
    }

    private static string Sentence(string code, List<string> names, List<(string Name, string Opens)> opens, bool again, GivenMark? mark)
    {
        var to = Counting.Joined(names, "and") + (mark is null ? "" : $" with {MarkWords.Of(mark)}");
        if (again)
            return $"{code} goes back to {to} to try again; nothing opens.";
        if (opens.Count == 0)
            return $"{code} goes back to {to}; nothing depends on it.";
        // For those for whom the same opens it is said once.
        var parts = opens
            .GroupBy(one => one.Name, one => one.Opens)
            .GroupBy(one => Counting.Joined([.. one], "and"))
            .Select(same => (What: same.Key, Many: same.First().Count(), Who: same.Select(one => one.Key).ToList()))
            .ToList();
        return parts is [var only] && only.Who.Count == names.Count
            ? $"{code} goes back to {to}, for whom {only.What} {(only.Many == 1 ? "opens" : "open")}."
            : $"{code} goes back to {to}. "
                + string.Join(
                    ' ',
                    parts.Select(part => $"For {Counting.Joined(part.Who, "and")} {part.What} {(part.Many == 1 ? "opens" : "open")}.")
                );
    }

    internal sealed class Rules : AbstractValidator<GiveBackRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Text)
                .MaximumLength(Longest)
                .WithMessage($"This is too long: {Longest:N0} characters at most. Make it shorter.");
            RuleFor(request => request.Remarks)
                .Must(remarks => remarks is { Count: <= Remark.Most })
                .WithMessage($"A piece takes {Remark.Most} remarks at most. Say some of it in the feedback instead.");
            RuleForEach(request => request.Remarks)
                .Must(remark => remark?.At is not null && !string.IsNullOrWhiteSpace(remark.Text))
                .WithMessage("Write the remark, or remove it.")
                .Must(remark => remark?.Text is not { Length: > Remark.Longest })
                .WithMessage($"This remark is too long: {Remark.Longest:N0} characters at most. Make it shorter.");
        }
    }
}
