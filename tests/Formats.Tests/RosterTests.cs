using System.Collections.Immutable;
using System.IO.Compression;
using System.Text;
using NodaTime;
using Polycline.Formats.Rosters;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Rosters, as other systems and spreadsheets write them.</summary>
public sealed class RosterTests
{
    private const string Users12 = """
        sourcedId,status,dateLastModified,enabledUser,givenName,familyName,email,username,preferredGivenName
        u1,active,,true,Marit,Oyelaran,marit.oyelaran@fenwater.example,marit,
        u2,active,,true,Bo,Castellan,,bo.castellan@fenwater.example,Boris
        u3,active,,false,Lena,Quist,lena.quist@fenwater.example,lena,
        u4,active,,true,Ada,Morrow,ada.morrow@fenwater.example,ada,
        u5,tobedeleted,,true,Ivo,Hale,ivo.hale@fenwater.example,ivo,
        u6,active,,true,Pia,,not an address,pia,
        """;

    private const string Roles = """
        sourcedId,status,dateLastModified,userSourcedId,roleType,role
        r1,active,,u1,primary,teacher
        r2,active,,u2,primary,student
        r3,active,,u3,primary,student
        r4,active,,u4,primary,guardian
        r5,active,,u6,primary,student
        """;

    private const string Classes = """
        sourcedId,status,dateLastModified,title,grades,courseSourcedId,termSourcedIds,subjects
        c1,active,,9 Elder,"09,10",k1,"s1,s2",
        c2,active,,9 Fir,09,k2,,"Geography, History"
        c3,tobedeleted,,9 Gone,09,k2,,
        """;

    private const string Enrolments = """
        sourcedId,status,dateLastModified,classSourcedId,userSourcedId,role,primary,beginDate,endDate
        e1,active,,c1,u1,teacher,true,,
        e2,active,,c1,u2,student,,2026-09-07,2026-12-01
        e3,active,,c2,u2,student,,soon,
        e4,active,,c2,u4,guardian,,,
        e5,active,,c3,u2,student,,,
        e6,active,,c2,u9,student,,,
        e7,active,,c2,u3,student,,,
        e8,tobedeleted,,c2,u1,teacher,,,
        """;

    private static byte[] Zip(params (string Name, string Text)[] tables)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create))
            foreach (var (name, text) in tables)
            {
                using var entry = new StreamWriter(zip.CreateEntry(name).Open(), new UTF8Encoding(true));
                entry.Write(text);
            }
        return stream.ToArray();
    }

    private static byte[] Whole(string? users = null) =>
        Zip(
            ("manifest.csv", "propertyName,value\nmanifest.version,1.0\nsource.systemName,Harbour Office"),
            ("academicSessions.csv", "sourcedId,status,startDate,endDate\ns1,,2026-08-31,2026-10-23\ns2,,2026-11-02,2026-12-18"),
            ("courses.csv", "sourcedId,status,title,subjects\nk1,,Weather,Science\nk2,,Maps,"),
            ("users.csv", users ?? Users12),
            ("roles.csv", Roles),
            ("classes.csv", Classes),
            ("enrollments.csv", Enrolments),
            ("demographics.csv", "sourcedId,birthDate\nu1,1990-01-01")
        );

    private static ImmutableArray<RosterColumn> Guessed(string headings) => RosterCsv.Headings(Encoding.UTF8.GetBytes(headings)).Guessed;

    [Fact]
    public void OneRoster_1_2_is_read_with_its_roles_sessions_and_subjects()
    {
        var roster = OneRoster.Read(Whole());
        roster.Source.ShouldBe("Harbour Office");
        roster
            .People.Select(person => (person.Key, person.Name, person.Email, person.Teacher))
            .ShouldBe([
                ("u1", "Marit Oyelaran", "marit.oyelaran@fenwater.example", true),
                ("u2", "Boris Castellan", "bo.castellan@fenwater.example", false),
            ]);
        roster
            .Sections.Select(section => (section.Name, section.Subject, section.Year, section.From, section.To))
            .ShouldBe([
                ("9 Elder", "Science", "09", new LocalDate(2026, 8, 31), new LocalDate(2026, 12, 18)),
                ("9 Fir", "Geography", "09", null, null),
            ]);
        roster
            .Places.Select(place => (place.Section, place.Person, place.Teacher, place.From, place.To))
            .ShouldBe([("c1", "u1", true, null, null), ("c1", "u2", false, new LocalDate(2026, 9, 7), new LocalDate(2026, 12, 1))]);
    }

    [Fact]
    public void What_cannot_be_read_is_said_by_row_and_column_and_the_rest_goes_on()
    {
        var roster = OneRoster.Read(Whole());
        roster
            .Faults.Select(fault => $"{fault.Row.File} {fault.Row.Number} {fault.Column}")
            .ShouldBe(["users.csv 7 email", "enrollments.csv 4 beginDate", "enrollments.csv 7 userSourcedId"]);
        roster
            .LeftOut.Order()
            .ShouldBe([
                "enrolments of people and sections that are left out: 2",
                "enrolments that are neither a student’s nor a teacher’s: 1",
                "people who are neither students nor teachers: 1",
                "people whose accounts are disabled there: 1",
            ]);
    }

    [Fact]
    public void OneRoster_1_1_has_the_role_with_the_person()
    {
        const string Users11 = """
            sourcedId,status,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email
            u1,,true,o1,teacher,marit,,Marit,Oyelaran,,,marit.oyelaran@fenwater.example
            u2,,true,o1,student,bo,,Bo,Castellan,,,bo.castellan@fenwater.example
            """;
        OneRoster
            .Read(Whole(Users11))
            .People.Select(person => (person.Name, person.Teacher))
            .ShouldBe([("Marit Oyelaran", true), ("Bo Castellan", false)]);
    }

    [Fact]
    public void A_zip_without_people_or_that_is_none_is_refused()
    {
        Should
            .Throw<RosterRefusedException>(() => OneRoster.Read(Zip(("classes.csv", Classes))))
            .Message.ShouldBe("There is no users.csv in this zip.");
        Should.Throw<RosterRefusedException>(() => OneRoster.Read([(byte)'P', (byte)'K', 3, 4, 1, 2, 3]));
        OneRoster.IsZip(Encoding.UTF8.GetBytes("name,email")).ShouldBeFalse();
    }

    [Theory]
    [InlineData("name,email,section\nBo Castellan,bo@fenwater.example,9 Elder")]
    [InlineData("\uFEFFFamily name;Given name;E-mail;Class\r\nCastellan;Bo;bo@fenwater.example;9 Elder\r\n")]
    [InlineData("Student\tMail address\tForm\n\nBo Castellan\tbo@fenwater.example\t9 Elder\n")]
    [InlineData("surname,first name,email,group\n\"Castellan\",Bo,bo@fenwater.example,\"9 Elder\"")]
    public void A_plain_table_is_read_in_whatever_form(string text)
    {
        var file = Encoding.UTF8.GetBytes(text);
        var roster = RosterCsv.Read(file, RosterCsv.Headings(file).Guessed);
        roster.Faults.ShouldBeEmpty();
        roster.People.ShouldHaveSingleItem().Name.ShouldBe("Bo Castellan");
        roster.Sections.ShouldHaveSingleItem().Name.ShouldBe("9 Elder");
        var place = roster.Places.ShouldHaveSingleItem();
        (place.Person, place.Teacher).ShouldBe(("bo@fenwater.example", false));
    }

    [Fact]
    public void The_good_rows_of_a_table_go_and_the_others_are_named()
    {
        const string Text = """
            name,email,section,from,until,role,number
            Bo Castellan,bo@fenwater.example,9 Elder,31/8/2026,18.12.2026,student,7
            Bo Castellan,bo@fenwater.example,9 Elder,,,student,7
            ,lena@fenwater.example,9 Elder,,,student,8
            Lena Quist,lena,9 Elder,,,student,8
            Ivo Hale,bo@fenwater.example,9 Elder,,,student,9
            Ada Morrow,ada@fenwater.example,,,,student,10
            Pia Dahl,pia@fenwater.example,9 Elder,2026-10-01,2026-09-01,student,11
            Marit Oyelaran,marit@fenwater.example,9 Elder,,,Teacher,12
            """;
        var file = Encoding.UTF8.GetBytes(Text);
        var roster = RosterCsv.Read(file, RosterCsv.Headings(file).Guessed);
        roster
            .Faults.Select(fault => $"{fault.Row.Number} {fault.Column}")
            .ShouldBe(["3 ", "4 name", "5 email", "6 email", "7 section", "8 "]);
        roster
            .Places.Select(place => (place.Person, place.Teacher, place.From, place.To))
            .ShouldBe([("7", false, new LocalDate(2026, 8, 31), new LocalDate(2026, 12, 18)), ("12", true, null, null)]);
    }

    [Fact]
    public void Headings_say_what_their_columns_are_and_no_two_are_the_same()
    {
        Guessed("First name,Last name,Email,Year group,Start date,End date,UPN")
            .ShouldBe([
                RosterColumn.GivenName,
                RosterColumn.FamilyName,
                RosterColumn.Email,
                RosterColumn.Section,
                RosterColumn.From,
                RosterColumn.Until,
                RosterColumn.Number,
            ]);
        Guessed("email,parent email,shoe size").ShouldBe([RosterColumn.Email, RosterColumn.Ignored, RosterColumn.Ignored]);
    }

    [Theory]
    [InlineData("")]
    [InlineData("name,section\nBo,9 Elder")]
    [InlineData("email,section\nbo@x.example,9 Elder")]
    [InlineData("name,email\nBo,bo@x.example")]
    public void A_table_that_lacks_what_is_needed_is_refused(string text)
    {
        var file = Encoding.UTF8.GetBytes(text);
        Should.Throw<RosterRefusedException>(() => RosterCsv.Read(file, RosterCsv.Headings(file).Guessed));
    }
}
