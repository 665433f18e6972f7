using System.Data;
using NodaTime;
using NodaTime.Text;
using Polycline.Core.Courses;
using Polycline.Core.WhatIf;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Editions;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.Editions;

/// <param name="On">The last day on which it is current, such as <c>2026-12-18</c>; null: it ends now.</param>
public sealed record EndEditionRequest(string? On);

/// <param name="Applied">False if this was only a preview and nothing was written.</param>
/// <param name="Sentence">What becomes of it, and what is still to be done in it.</param>
/// <param name="Act">What the button that does it says.</param>
public sealed record EndEditionAnswer(bool Applied, string Sentence, string Act) : IAnswer<EndEditionAnswer>
{
    public EndEditionAnswer AsPreview() => this with { Applied = false };
}

/// <summary>
/// An edition becomes a past one, now or after a day that is set: by an act of its own, never as a side effect. It stays
/// complete with its work; the edition that is coming becomes the current one. Taken back until students have begun there.
/// </summary>
public sealed class EndEdition : IWorkCommand<EndEditionRequest, EndEditionAnswer>
{
    public static string Name => "end-edition";

    public static May May => May.Lead;

    public static WorkPlace Place => WorkPlace.Edition;

    public static async Task<EndEditionAnswer> Do(WorkContext work, EndEditionRequest request)
    {
        var (connection, viewpoint, id) = (work.Connection, work.Viewpoint, work.Edition);
        await EditionStore.Lock(connection, id);
        var plan = await EditionStore.Read(connection, id) ?? throw Problem.Unknown();
        if (plan.State != EditionState.Current)
            throw Problem.AtRest();
        var on = DayOf(request.On, plan.Term.Local(viewpoint.At).Date);
        var (editions, _) = await RolloverStore.Read(connection, id);
        var coming = editions.FirstOrDefault(one => one.State == "draft");
        var sections = plan.Sections.Select(section => section.Id).ToList();
        var students = sections.Count == 0 ? [] : await StudentStore.Beside(connection, plan, plan, sections, viewpoint.At);
        var waits = WhoWaits.Of(plan.Schedule, [.. students.Select(pair => pair.After)], viewpoint.At);
        var waiting = waits.Items.Sum(item => item.Pieces);
        var unpublished = plan.Edition.InReadingOrder().Count(item => !item.Published);
        if (on is { } last)
            await RolloverStore.EndOn(connection, id, last);
        else
            await RolloverStore.End(connection, id);
        await work.Audit("edition-ended", new { edition = id.Value, on = request.On });
        var when = on is { } day ? $"after {Moment.InWords(day, day)}" : "now";
        List<string> told =
        [
            $"{plan.CourseTitle}, {plan.Edition.Title} becomes a past edition {when}.",
            "Everything in it stays, students’ work included. It can still be read and searched, but no longer changed.",
            unpublished == 0
                ? "Everything in it was published."
                : $"{plan.Edition.Levels.Item.Counted(unpublished)} in it {(unpublished == 1 ? "was" : "were")} never published.",
            waiting == 0
                ? "All work has been read and given back."
                : $"{Counted(waiting, "piece of work has", "pieces of work have")} not been read and given back; that can still be done.",
            coming is null ? "No next edition is being prepared." : $"{coming.Title.Capital()} becomes the current one.",
        ];
        return new(true, string.Join(' ', told), on is null ? $"End {plan.Edition.Title}" : $"End {plan.Edition.Title} {when}");
    }

    // Null: now.
    private static LocalDate? DayOf(string? on, LocalDate today) =>
        on is null ? null
        : LocalDatePattern.Iso.Parse(on) is { Success: true, Value: var day } && day >= today && day <= today.PlusYears(2) ? day
        : throw Problem.Field("on", "Give the last day it stays current, from today to two years ahead.");
}
