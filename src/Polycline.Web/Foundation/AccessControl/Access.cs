using System.Collections.Immutable;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.People;

namespace Polycline.Web.Foundation.AccessControl;

/// <summary>Who may call an endpoint: any of the named.</summary>
[Flags]
public enum May
{
    /// <summary>Anybody at all, signed in or not.</summary>
    Anyone = 1,

    /// <summary>Anybody signed in.</summary>
    SignedIn = 2,

    /// <summary>Members of the team of the edition that the address names.</summary>
    Team = 4,

    /// <summary>Teachers of the section that the address names, and the leads of the course it follows.</summary>
    SectionTeacher = 8,

    /// <summary>Students whom that section lists today.</summary>
    SectionStudent = 16,

    /// <summary>Those of the team who lead the course.</summary>
    Lead = 64,

    /// <summary>The school's office, for the term that the address names.</summary>
    Office = 32,

    /// <summary>The school's office, for what concerns no single term.</summary>
    School = 128,

    /// <summary>Teachers: they may make courses.</summary>
    Teacher = 256,
}

/// <summary>Who asks, and what they are to the edition or section that the address names.</summary>
public sealed record Access
{
    public required Person Person { get; init; }

    /// <summary>The hash of their session's token.</summary>
    public required byte[] Token { get; init; }

    public required bool IsOffice { get; init; }

    /// <summary>They may make courses.</summary>
    public required bool IsTeacher { get; init; }

    public required bool IsLead { get; init; }

    public required bool IsMember { get; init; }

    /// <summary>They are on the team, and change nothing.</summary>
    public required bool IsReader { get; init; }

    /// <summary>They are on the team, and change only the sections that they teach.</summary>
    public required bool OnlySections { get; init; }

    public required bool TeachesSection { get; init; }

    /// <summary>The sections that they teach.</summary>
    public required ImmutableHashSet<Id<Section>> Teaches { get; init; }

    public required Id<Edition>? Edition { get; init; }

    public required Id<Master>? Master { get; init; }

    public required EditionState? EditionState { get; init; }

    public required long EditionVersion { get; init; }

    public required Id<Section>? Section { get; init; }

    /// <summary>With <see cref="EnrolledTo"/>: when the section lists them, dates inclusive.</summary>
    public required ImmutableArray<LocalDate> EnrolledFrom { get; init; }

    public required ImmutableArray<LocalDate> EnrolledTo { get; init; }

    public required Id<Term>? Term { get; init; }

    public required long TermVersion { get; init; }

    public required DateTimeZone Zone { get; init; }

    /// <summary>Where times are shown in a school that has no term yet. What belongs to no term is shown as in the latest one.</summary>
    private static readonly DateTimeZone NoTerm = DateTimeZone.Utc;

    /// <summary>Of whoever teaches a section, for what they left to be done by itself.</summary>
    public static Access Teaching(Person person, EditionPlan plan, Id<Section> section) =>
        new()
        {
            Person = person,
            Token = [],
            IsOffice = false,
            IsTeacher = true,
            IsLead = false,
            IsMember = false,
            IsReader = false,
            OnlySections = true,
            TeachesSection = true,
            Teaches = [section],
            Edition = plan.Id,
            Master = null,
            EditionState = plan.State,
            EditionVersion = 0,
            Section = section,
            EnrolledFrom = [],
            EnrolledTo = [],
            Term = null,
            TermVersion = 0,
            Zone = plan.Term.Zone,
        };

    public static Access Of(AccessRow row, byte[] token) =>
        new()
        {
            Person = new(row.Person, row.PersonName),
            Token = token,
            IsOffice = row.Office,
            IsTeacher = row.Teacher,
            IsLead = row.MemberRole == "lead",
            IsMember = row.MemberRole is not null,
            IsReader = row.MemberRole == "reader",
            OnlySections = row.MemberRole == "sections",
            TeachesSection = row.TeachesSection,
            Teaches = [.. row.Teaches],
            Edition = row.Edition,
            Master = row.Master,
            EditionState = row.EditionState is null ? null : EnumNames.Parse<EditionState>(row.EditionState),
            EditionVersion = row.EditionVersion ?? 0,
            Section = row.Section,
            EnrolledFrom = [.. row.EnrolledFrom ?? []],
            EnrolledTo = [.. row.EnrolledTo ?? []],
            Term = row.Term,
            TermVersion = row.TermVersion ?? 0,
            Zone = row.TermZone is null ? NoTerm : DateTimeZoneProviders.Tzdb[row.TermZone],
        };

    /// <summary>
    /// Where the counters stood of what the address names: the edition's and its term's, or the term's; null: it names neither.
    /// </summary>
    public string? Counters =>
        Edition is not null ? $"{EditionVersion}.{TermVersion}"
        : Term is not null ? $"{TermVersion}"
        : null;

    /// <summary>Whether they may, as of <paramref name="now"/>.</summary>
    public bool Allows(May may, Instant now) =>
        may.HasFlag(May.SignedIn)
        || (may.HasFlag(May.Office) && IsOffice && Term is not null)
        || (may.HasFlag(May.School) && IsOffice)
        || (may.HasFlag(May.Teacher) && IsTeacher)
        || (may.HasFlag(May.Team) && IsMember)
        || (may.HasFlag(May.Lead) && IsLead && Edition is not null)
        || (may.HasFlag(May.SectionTeacher) && Section is not null && (TeachesSection || IsLead))
        || (may.HasFlag(May.SectionStudent) && IsStudent(now));

    /// <summary>Whether the section lists them as a student on the local date of <paramref name="now"/>.</summary>
    public bool IsStudent(Instant now)
    {
        var today = now.InZone(Zone).Date;
        return EnrolledFrom.Zip(EnrolledTo).Any(period => period.First <= today && today <= period.Second);
    }

    /// <summary>Binds a handler's parameter to what <see cref="SessionAuthentication"/> found.</summary>
    public static ValueTask<Access?> BindAsync(HttpContext http) => ValueTask.FromResult(http.Features.Get<Access>());
}
