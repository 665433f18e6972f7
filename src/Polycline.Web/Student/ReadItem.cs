using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Links;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

public sealed record StudentItemAnswer
{
    public required Id<Item> Item { get; init; }

    /// <summary>Whose page it is; null: a pretend student's.</summary>
    public required Id<Person>? Student { get; init; }

    public required string Course { get; init; }

    public required string Section { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required string Kind { get; init; }

    public required string Purpose { get; init; }

    public required string State { get; init; }

    public required string Progress { get; init; }

    public required string Unit { get; init; }

    public required string? Lesson { get; init; }

    public required Moment? Opens { get; init; }

    public required Moment? Due { get; init; }

    public required Moment? Closes { get; init; }

    public required string? DueRelative { get; init; }

    /// <summary>What is to be read; null: there is nothing, or not now.</summary>
    public required string? Html { get; init; }

    /// <summary>Where it leads; null: it is no link, or cannot be read now.</summary>
    public required string? Address { get; init; }

    /// <summary>What was found when that address was last tried.</summary>
    public required LinkAnswer? Link { get; init; }

    /// <summary>What is given with it to read.</summary>
    public required IReadOnlyList<FileAnswer> Files { get; init; }

    /// <summary>Files of which each student gets a copy.</summary>
    public required IReadOnlyList<GivenCopy> Copies { get; init; }

    /// <summary>Whether their section writes, or has written, in a sheet of it together.</summary>
    public required bool HasSheet { get; init; }

    /// <summary>What it asks for; null: nothing that could be handed in or ticked off.</summary>
    public required AsksForm? Asks { get; init; }

    /// <summary>By which rubric it is marked; null: by none, or it is not to be read now.</summary>
    public required string? Rubric { get; init; }

    /// <summary>That one and those that marks were made with, by what they are called here.</summary>
    public required IReadOnlyDictionary<string, RubricForm> Rubrics { get; init; }

    /// <summary>Those with whom they hand it in, in order of name: one does it for all. Empty: they hand in their own.</summary>
    public required IReadOnlyList<string> Together { get; init; }

    /// <summary>What is asked for and is not in the draft yet, in words.</summary>
    public required IReadOnlyList<string> StillAsked { get; init; }

    /// <summary>Whether work can be written and handed in.</summary>
    public required bool MayWork { get; init; }

    /// <summary>Whether it can be ticked off, or the tick taken back.</summary>
    public required bool MayTick { get; init; }

    public required bool IsTicked { get; init; }

    /// <summary>The day it is at the school, such as 2026-10-08.</summary>
    public required string Today { get; init; }

    /// <summary>What was written and not handed in.</summary>
    public required DraftAnswer? Draft { get; init; }

    /// <summary>What was handed in and what came back, the latest first.</summary>
    public required IReadOnlyList<HandedIn> History { get; init; }

    /// <summary>What was given for what was done on paper, the latest first.</summary>
    public required IReadOnlyList<BackAnswer> OnPaper { get; init; }

    /// <summary>When they said that they cannot open it; null: they have not, or a teacher has seen to it.</summary>
    public required Moment? SaidCannotOpenAt { get; init; }

    /// <summary>What the course calls its levels.</summary>
    public required LevelNames Levels { get; init; }
}

/// <param name="Version">To be named when it is saved again; 0: there is none yet.</param>
/// <param name="MissedAt">It was sent, but came after the item had closed.</param>
/// <param name="Judged">What they say of it by the item's rubric.</param>
public sealed record DraftAnswer(
    string Text,
    IReadOnlyList<FileAnswer> Files,
    IReadOnlyList<string> Links,
    IReadOnlyList<LogEntry> Entries,
    Moment SavedAt,
    long Version,
    Moment? MissedAt,
    IReadOnlyList<LevelGiven> Judged
);

/// <summary>One item, as a student may see it.</summary>
public static class ReadItem
{
    public static async Task<StudentItemAnswer> Handle(
        long section,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop, new(item));
        var sight = course.See(new Id<Item>(item));
        var (html, work) = (await compiled.Text(sight), course.Work);
        var feedback = course.Feedback.Where(row => row.Item.Value == item).ToList();
        var rubrics = await compiled.Rubrics(
            feedback
                .Select(row => MarkAnswer.RubricIn(row.Mark))
                .Concat(work.Versions.Select(version => OwnJudgement.Read(version.Judged)?.Rubric))
                .Append(sight.Rubric)
        );
        var zone = course.Zone;
        return new()
        {
            Item = new(item),
            Student = course.Student,
            Course = course.Title,
            Section = course.SectionName,
            Code = sight.Code,
            Title = sight.Title,
            Kind = EnumNames.Of(sight.Kind),
            Purpose = EnumNames.Of(sight.Purpose),
            State = EnumNames.Of(sight.State),
            Progress = EnumNames.Of(sight.Progress),
            Unit = sight.Unit,
            Lesson = sight.Lesson,
            Opens = Moment.Of(sight.Opens, zone),
            Due = Moment.Of(sight.Due, zone),
            Closes = Moment.Of(sight.Closes, zone),
            DueRelative = sight.Due is { } due ? MomentWords.Relative(due, course.At, zone) : null,
            Html = Pictures.Shown(html, $"/api/sections/{section}/items/{item}"),
            Files = [.. course.Files(sight).Where(file => file.Way == FileWay.Read).Select(Given)],
            HasSheet = sight.MayRead && course.HasSheet(new(item)),
            Copies = OwnCopies.Of(course, sight, work, Given),
            SaidCannotOpenAt = Moment.Of(course.SaidCannotOpenAt, zone),
            Address = sight.Address,
            Link = LinkAnswer.Of(course.LinkCheck, zone),
            Asks = sight.MayRead ? AsksForm.Of(sight.Asks) : null,
            Rubric = sight.Rubric,
            Rubrics = rubrics.ToDictionary(rubric => rubric.Key, rubric => RubricForm.Of(rubric.Value)!),
            Together = sight.MayRead ? course.NamesOf(course.HandsInWith(new(item))) : [],
            StillAsked = Foundation.Reading.StillAsked.Of(
                sight.Asks,
                work.Draft?.Text ?? "",
                work.Listed(work.Draft?.Files),
                work.Draft?.Links ?? [],
                LogEntry.Read(work.Draft?.Entries),
                sight.Rubric is null || OwnJudgement.Read(work.Draft?.Judged) is { IsWhole: true } own && own.Rubric == sight.Rubric
            ),
            MayWork = sight is { MayWork: true, Asks.Way: not AskedWay.Tick },
            MayTick = sight is { Asks.Way: AskedWay.Tick, State: ReleaseState.Open or ReleaseState.Overdue },
            IsTicked = sight.IsTicked,
            Today = NodaTime.Text.LocalDatePattern.Iso.Format(course.At.InZone(zone).Date),
            Draft = work.Draft is { } draft
                ? new(
                    draft.Text,
                    Own(draft.Files),
                    draft.Links ?? [],
                    LogEntry.Read(draft.Entries),
                    Moment.Of(draft.SavedAt, zone),
                    draft.Version,
                    Moment.Of(draft.MissedAt, zone),
                    OwnJudgement.Read(draft.Judged) is { } judged && judged.Rubric == sight.Rubric ? LevelGiven.Of(judged.Levels) : []
                )
                : null,
            OnPaper = BackAnswer.OnPaper(feedback, zone),
            History = [.. work.Versions.Select(version => HandedIn.Of(version, Own(version.Files), feedback, zone))],
            Levels = course.Levels,
        };

        FileAnswer Given(ItemFileRow file) =>
            FileAnswer.Of(file.Id.Value, file.Name, file.Stored, $"/api/sections/{section}/items/{item}/files/{file.Id}");

        IReadOnlyList<FileAnswer> Own(Id<WorkFileRow>[]? files) => WorkFiles.Answer(work.Listed(files), section, new(item));
    }
}
