using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.Notes;
using Polycline.Data.Terms;

namespace Polycline.Data.Ledger;

/// <summary>Every table that the ledger keeps, column by column: the only place that names them.</summary>
public static class Tables
{
    public static class Units
    {
        public static readonly LedgerTable<Unit> Table = new("unit", tombstoned: true);
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<string?> Lineage = Table.Text("lineage");
        public static readonly Column<string?> Rank = Table.Text("rank");
        public static readonly Column<string?> Title = Table.Text("title");
        public static readonly Column<bool> Published = Table.Flag("published");
        public static readonly Column<Gate?> Gate = Table.Json<Gate?>("gate", gate => gate is null ? null : PlanParts.Json(gate));
        public static readonly Column<string?> Before = Table.Text("before");
        public static readonly Column<bool> Welcome = Table.Flag("welcome");
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
    }

    public static class Lessons
    {
        public static readonly LedgerTable<Lesson> Table = new("lesson", tombstoned: true);
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<Id<Unit>?> Unit = Table.Reference<Unit>("unit");
        public static readonly Column<string?> Lineage = Table.Text("lineage");
        public static readonly Column<string?> Rank = Table.Text("rank");
        public static readonly Column<string?> Title = Table.Text("title");
        public static readonly Column<int?> Length = Table.Number("length");
        public static readonly Column<int?> Shortest = Table.Number("min_length");
        public static readonly Column<bool> Optional = Table.Flag("optional");
        public static readonly Column<bool> Published = Table.Flag("published");
        public static readonly Column<Gate?> Gate = Table.Json<Gate?>("gate", gate => gate is null ? null : PlanParts.Json(gate));
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
    }

    public static class Items
    {
        public static readonly LedgerTable<Item> Table = new("item", tombstoned: true);
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<Id<Unit>?> Unit = Table.Reference<Unit>("unit");
        public static readonly Column<Id<Lesson>?> Lesson = Table.Reference<Lesson>("lesson");
        public static readonly Column<string?> Lineage = Table.Text("lineage");
        public static readonly Column<string?> Rank = Table.Text("rank");
        public static readonly Column<string?> Kind = Table.Text("kind");
        public static readonly Column<string?> Purpose = Table.Text("purpose");
        public static readonly Column<string?> Title = Table.Text("title");
        public static readonly Column<bool> Published = Table.Flag("published");
        public static readonly Column<string?> Code = Table.Text("code");

        /// <summary>The hash of its text, in hex.</summary>
        public static readonly Column<string?> Body = Table.Bytes("body");
        public static readonly Column<Anchor?> Opens = Anchored("opens");
        public static readonly Column<Anchor?> Due = Anchored("due");
        public static readonly Column<Anchor?> Closes = Anchored("closes");
        public static readonly Column<Gate?> Gate = Table.Json<Gate?>("gate", gate => gate is null ? null : PlanParts.Json(gate));
        public static readonly Column<ForWhom?> ForWhom = Table.Json<ForWhom?>("for_whom", whom =>
            whom is null ? null : PlanParts.Json(whom)
        );
        public static readonly Column<string?> Before = Table.Text("before");
        public static readonly Column<JsonNode?> Options = Table.Json("options");
        public static readonly Column<int?> Picks = Table.Number("picks");
        public static readonly Column<Offered?> Offered = Table.Json<Offered?>("offered", offered =>
            offered is null ? null : PlanParts.Json(offered)
        );
        public static readonly Column<Asks?> Asks = Table.Json<Asks?>("asks", asks => asks is null ? null : PlanParts.Json(asks));

        /// <summary>The hash of its questions, in hex.</summary>
        public static readonly Column<string?> Quiz = Table.Bytes("quiz");

        /// <summary>The hash of its rubric, in hex.</summary>
        public static readonly Column<string?> Rubric = Table.Bytes("rubric");
        public static readonly Column<MarkedAs?> Marked = Table.Json<MarkedAs?>("marked", marked =>
            marked is null ? null : PlanParts.Json(marked)
        );
        public static readonly Column<string?> Address = Table.Text("address");
        public static readonly Column<bool> AboutTeacher = Table.Flag("about_teacher");
        public static readonly Column<ImmutableArray<string>> Outcomes = Table.Json<ImmutableArray<string>>("outcomes", codes =>
            JsonSerializer.Serialize(codes)
        );
        public static readonly Column<Id<Person>?> AboutWhom = Table.Reference<Person>("about_whom");
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");

        /// <summary>When it opens, is due or closes.</summary>
        public static Column<Anchor?> Dated(DateField field) =>
            field switch
            {
                DateField.Opens => Opens,
                DateField.Due => Due,
                _ => Closes,
            };

        private static Column<Anchor?> Anchored(string name) =>
            Table.Json<Anchor?>(name, anchor => anchor is null ? null : PlanParts.Json(anchor));
    }

    public static class ItemFiles
    {
        public static readonly LedgerTable<ItemFileRow> Table = new("item_file", tombstoned: true);
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<Id<Item>?> Item = Table.Reference<Item>("item");
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
        public static readonly Column<string?> Rank = Table.Text("rank");
        public static readonly Column<string?> Name = Table.Text("name");

        /// <summary>The hash of its bytes, in hex.</summary>
        public static readonly Column<string?> File = Table.Bytes("file");
        public static readonly Column<Id<ItemFileRow>?> Replaces = Table.Reference<ItemFileRow>("replaces");
        public static readonly Column<string?> Given = Table.Text("given");
        public static readonly Column<string?> CopyName = Table.Text("copy_name");
        public static readonly Column<Id<Person>?> BroughtBy = Table.Reference<Person>("brought_by");
        public static readonly Column<Instant?> BroughtAt = Table.Moment("brought_at");
    }

    public static class Notes
    {
        public static readonly LedgerTable<NoteRow> Table = new("team_note", tombstoned: true);
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<string?> Place = Table.Text("place");
        public static readonly Column<bool> NextTime = Table.Flag("next_time");
        public static readonly Column<string?> Text = Table.Text("text");
        public static readonly Column<Id<Person>?> Author = Table.Reference<Person>("author");
        public static readonly Column<Instant?> WrittenAt = Table.Moment("written_at");
    }

    public static class Sections
    {
        public static readonly LedgerTable<Section> Table = new("section");
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<string?> Name = Table.Text("name");
        public static readonly Column<string?> Letter = Table.Text("letter");
        public static readonly Column<Id<Core.Calendars.Term>?> Term = Table.Reference<Core.Calendars.Term>("term");
        public static readonly Column<string?> Subject = Table.Text("subject");
        public static readonly Column<string?> Year = Table.Text("year");
        public static readonly Column<JsonNode?> Slots = Table.Json("slots");
        public static readonly Column<LocalDate?> FollowsFrom = Table.Date("follows_from");

        /// <summary>The made-up students of a pretend section; null: it is a real section.</summary>
        public static readonly Column<JsonNode?> Pretend = Table.Json("pretend");

        /// <summary>Its last day, where it ended before its term.</summary>
        public static readonly Column<LocalDate?> EndedOn = Table.Date("ended_on");
    }

    public static class Adjustments
    {
        public static readonly LedgerTable Table = new("adjustment", ["section", "target", "field"]);
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
        public static readonly Column<string?> Target = Table.Text("target");
        public static readonly Column<string?> Field = Table.Text("field");
        public static readonly Column<JsonNode?> Value = Table.Json("value");
    }

    public static class Taught
    {
        public static readonly LedgerTable Table = new("taught", ["section", "lesson"]);
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
        public static readonly Column<string?> Lesson = Table.Text("lesson");
        public static readonly Column<int?> Took = Table.Number("took");
        public static readonly Column<bool> Done = Table.Flag("done");
        public static readonly Column<int?> Left = Table.Number("left_over");
        public static readonly Column<Instant?> At = Table.Moment("at");
    }

    public static class OrderChanges
    {
        public static readonly LedgerTable Table = new("order_change", ["section", "seq"]);
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
        public static readonly Column<int?> Seq = Table.Number("seq");
        public static readonly Column<string?> Target = Table.Text("target");
        public static readonly Column<JsonNode?> Change = Table.Json("change");
    }

    public static class MeetingChanges
    {
        public static readonly LedgerTable Table = new("meeting_change", ["section", "seq"]);
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
        public static readonly Column<int?> Seq = Table.Number("seq");
        public static readonly Column<JsonNode?> Change = Table.Json("change");
    }

    public static class Groups
    {
        public static readonly LedgerTable<GroupRow> Table = new("student_group", tombstoned: true);
        public static readonly Column<Id<GroupRow>?> Number = Table.Reference<GroupRow>("id");
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<string?> Name = Table.Text("name");
    }

    public static class InGroup
    {
        public static readonly LedgerTable Table = new("in_group", ["student_group", "person"]);
        public static readonly Column<Id<GroupRow>?> Group = Table.Reference<GroupRow>("student_group");
        public static readonly Column<Id<Person>?> Person = Table.Reference<Person>("person");
        public static readonly Column<Instant?> At = Table.Moment("at");
    }

    /// <summary>Places in sections. A roster writes them too, past the log.</summary>
    public static class Places
    {
        public static readonly LedgerTable<ListedStudent> Table = new("enrolment");
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
        public static readonly Column<Id<Person>?> Person = Table.Reference<Person>("person");
        public static readonly Column<(LocalDate? From, LocalDate? To)> Period = Table.Period("period");
    }

    public static class Homes
    {
        public static readonly LedgerTable Table = new("home", ["edition", "person"]);
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<Id<Person>?> Person = Table.Reference<Person>("person");
        public static readonly Column<Id<Section>?> Section = Table.Reference<Section>("section");
    }

    public static class Exceptions
    {
        public static readonly LedgerTable Table = new("exception", ["edition", "person", "item", "field", "move"]);
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<Id<Person>?> Person = Table.Reference<Person>("person");
        public static readonly Column<string?> Item = Table.Text("item");
        public static readonly Column<string?> Field = Table.Text("field");
        public static readonly Column<JsonNode?> Value = Table.Json("value");
        public static readonly Column<string?> Move = Table.Text("move");
    }

    public static class Arrangements
    {
        public static readonly LedgerTable Table = new("arrangement", ["edition", "person"]);
        public static readonly Column<Id<Edition>?> Edition = Table.Reference<Edition>("edition");
        public static readonly Column<Id<Person>?> Person = Table.Reference<Person>("person");
        public static readonly Column<int?> DueDays = Table.Number("due_days");
        public static readonly Column<int?> QuizTime = Table.Number("quiz_time");
        public static readonly Column<string?> Reason = Table.Text("reason");
    }

    /// <summary>A course: what its editions have in common.</summary>
    public static class Masters
    {
        public static readonly LedgerTable<Master> Table = new("master");
        public static readonly Column<string?> Title = Table.Text("title");
        public static readonly Column<string?> Subject = Table.Text("subject");
    }

    /// <summary>Its own settings; its <c>version</c> is the counter of its scope.</summary>
    public static class Editions
    {
        public static readonly LedgerTable<Edition> Table = new("edition", version: "own_version");
        public static readonly Column<string?> Codes = Table.Text("codes");
        public static readonly Column<string?> Before = Table.Text("before");
        public static readonly Column<LevelNames?> Levels = Table.Json<LevelNames?>(
            "levels",
            // Null: as every course's are called.
            levels => levels is null || levels == LevelNames.Plain ? null : PlanParts.Json(levels)
        );
        public static readonly Column<AddingUp?> AddingUp = Table.Json<AddingUp?>(
            "adding_up",
            // Null: all points together, and nothing left out.
            adding => adding is null || adding == Core.Courses.AddingUp.Plain ? null : PlanParts.Json(adding)
        );
    }

    /// <summary>Its own settings; its <c>version</c> is the counter of its scope.</summary>
    public static class Terms
    {
        public static readonly LedgerTable<Core.Calendars.Term> Table = new("term", version: "own_version");
        public static readonly Column<LocalDate?> First = Table.Date("first");
        public static readonly Column<LocalDate?> Last = Table.Date("last");
        public static readonly Column<JsonNode?> Settings = Table.Json("settings");
    }

    public static class CalendarDays
    {
        public static readonly LedgerTable<CalendarDayRow> Table = new("calendar_day");
        public static readonly Column<Id<Core.Calendars.Term>?> Term = Table.Reference<Core.Calendars.Term>("term");
        public static readonly Column<string?> Kind = Table.Text("kind");
        public static readonly Column<LocalDate?> First = Table.Date("first");
        public static readonly Column<LocalDate?> Last = Table.Date("last");
        public static readonly Column<string?> Name = Table.Text("name");
        public static readonly Column<string?> Runs = Table.Text("runs");
        public static readonly Column<JsonNode?> Periods = Table.Json("periods");
    }

    public static readonly ImmutableArray<LedgerTable> All =
    [
        Units.Table,
        Lessons.Table,
        Items.Table,
        ItemFiles.Table,
        Notes.Table,
        Sections.Table,
        Adjustments.Table,
        Taught.Table,
        OrderChanges.Table,
        MeetingChanges.Table,
        Groups.Table,
        InGroup.Table,
        Places.Table,
        Homes.Table,
        Exceptions.Table,
        Arrangements.Table,
        Masters.Table,
        Editions.Table,
        Terms.Table,
        CalendarDays.Table,
    ];

    /// <summary>The table a change of the log is about.</summary>
    /// <exception cref="ArgumentException">The ledger keeps no such table.</exception>
    public static LedgerTable Of(string name) =>
        All.FirstOrDefault(table => table.Name == name)
        ?? throw new ArgumentException($"The ledger keeps no table '{name}'.", nameof(name));
}
