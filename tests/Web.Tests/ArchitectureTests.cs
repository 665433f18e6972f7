using System.Reflection;
using System.Xml.Linq;
using NetArchTest.Rules;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Demo;
using Polycline.Formats;
using Polycline.Testing;
using Polycline.Web.Account;
using Polycline.Web.Feeds;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Host;
using Polycline.Web.SignIn;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The arrows run one way, and what only one place may do is done there only.</summary>
public sealed class ArchitectureTests
{
    private static readonly Assembly Core = typeof(Id<>).Assembly;
    private static readonly Assembly Data = typeof(Database).Assembly;
    private static readonly Assembly Web = typeof(PolyclineHost).Assembly;

    [Fact]
    public void Core_knows_nobody_and_no_package_but_NodaTime()
    {
        Core.GetReferencedAssemblies()
            .Select(reference => reference.Name!)
            .ShouldEachBe(name => name == "NodaTime" || name == "netstandard" || name.StartsWith("System", StringComparison.Ordinal));
        Types
            .InAssembly(Core)
            .ShouldNot()
            .HaveDependencyOnAny("System.IO.File", "System.Net", "System.Threading.Tasks")
            .GetResult()
            .IsSuccessful.ShouldBeTrue();
        Packages("Polycline.Core").ShouldBe(["NodaTime"]);
    }

    [Fact]
    public void A_record_of_over_eight_members_names_them_where_it_is_made()
    {
        Assembly[] all = [Core, Data, Web, typeof(CalendarFeed).Assembly, typeof(DemoProfile).Assembly];
        // A positional record is known by its Deconstruct.
        var positional = all.SelectMany(assembly => assembly.GetTypes())
            .Where(type => type.FullName!.StartsWith("Polycline", StringComparison.Ordinal))
            .SelectMany(type => type.GetMethods(), (type, method) => (type.FullName, method.Name, Members: method.GetParameters().Length))
            .Where(method => method.Name == "Deconstruct")
            .ToList();
        positional.ShouldContain(record => record.Members == 8);
        positional.Where(record => record.Members > 8).ShouldBeEmpty();
    }

    // Each knows only what stands before it; of Calendars and Courses neither knows the other.
    private static readonly string[] CoreRooms =
    [
        "Json",
        "Unicode",
        "Calendars",
        "Courses",
        "Sections",
        "Planning",
        "Release",
        "Findings",
        "Enrolling",
        "WhatIf",
        "Changes",
        "Rollover",
        "Merging",
        "MergeFiles",
        "Marking",
        "Wording",
        "Explaining",
        "MarkFiles",
        "PlanFiles",
    ];

    [Fact]
    public void Rooms_of_Core_refer_one_way_and_nothing_stands_at_its_root_but_ids()
    {
        var rooms = CoreRooms.Select(room => $"Polycline.Core.{room}").ToList();
        Core.GetTypes()
            .Where(type => type is { IsPublic: true, Namespace: "Polycline.Core" })
            .Select(type => type.Name)
            .Order()
            .ShouldBe(["Id`1", "Ref`1"]);
        Core.GetTypes()
            .Select(type => type.Namespace)
            .OfType<string>()
            .Where(name => name.StartsWith("Polycline.Core.", StringComparison.Ordinal))
            .ShouldEachBe(name => rooms.Any(room => name == room || name.StartsWith($"{room}.", StringComparison.Ordinal)));
        foreach (var (room, place) in rooms.Select((room, place) => (room, place)))
        {
            var later = rooms[(place + 1)..];
            if (CoreRooms[place] == "Courses")
                later.Add("Polycline.Core.Calendars");
            if (later.Count == 0)
                continue;
            var types = Types.InAssembly(Core).That().ResideInNamespaceStartingWith(room);
            types.GetTypes().ShouldNotBeEmpty();
            (types.ShouldNot().HaveDependencyOnAny([.. later]).GetResult().FailingTypeNames ?? []).ShouldBeEmpty(
                $"{room} knows what stands after it"
            );
        }
    }

    [Fact]
    public void Every_type_of_the_glossary_exists_once_and_every_type_that_a_plan_is_made_of_has_its_word()
    {
        var lines = File.ReadAllLines(Path.Combine(TestServer.Root, "docs/glossary.md"))
            .Where(line => line.StartsWith("| ", StringComparison.Ordinal))
            .Skip(1);
        var named = lines.SelectMany(line => line.Split('|')[3].Split('`').Where((_, place) => place % 2 == 1)).Distinct().ToList();
        named.Count.ShouldBeGreaterThan(40);
        var known = new[] { Core, Data, Web, typeof(Csv).Assembly }
            .SelectMany(assembly => assembly.GetTypes())
            .GroupBy(type => type.Name.Split('`')[0])
            .ToDictionary(types => types.Key, types => types.Count());
        named.Where(type => !known.ContainsKey(type)).ShouldBeEmpty();
        // Of what is called the same in two places it cannot be said which is meant; a closed family counts once.
        named.Where(type => known[type] > 2).ShouldBeEmpty();
        var plan = typeof(Polycline.Core.Release.Plan)
            .GetProperties()
            .Concat(typeof(Polycline.Core.Sections.Section).GetProperties())
            .SelectMany(property =>
                property.PropertyType.IsGenericType ? property.PropertyType.GenericTypeArguments : [property.PropertyType]
            )
            .Where(type => type.Assembly == Core && !type.IsGenericType && type != typeof(string))
            .Select(type => type.Name)
            .Distinct();
        plan.Except(named).ShouldBeEmpty();
    }

    [Fact]
    public void Data_and_Formats_know_Core_and_Web_knows_them_all_and_nobody_knows_the_demo()
    {
        References(Data).ShouldBe(["Polycline.Core"]);
        References(typeof(Csv).Assembly).ShouldBeSubsetOf(["Polycline.Core"]);
        References(Web).ShouldBe(["Polycline.Core", "Polycline.Data", "Polycline.Formats"]);
        References(typeof(DemoProfile).Assembly).ShouldContain("Polycline.Web");
    }

    [Fact]
    public void No_SQL_and_no_database_stands_in_a_decision_and_the_database_is_spoken_to_in_Data()
    {
        Packages("Polycline.Web").ShouldNotContain(package => package.Contains("Dapper") || package.Contains("Npgsql"));
        Types.InAssembly(Web).ShouldNot().HaveDependencyOn("Dapper").GetResult().IsSuccessful.ShouldBeTrue();
        var decisions = Commands(typeof(IPlanningCommand<,>), typeof(IPlanningCommand<,,>))
            .SelectMany(command => command.GetMethods().Where(method => method.Name == "Decide"))
            .ToList();
        decisions.Count.ShouldBeGreaterThan(30);
        decisions.ShouldEachBe(decide =>
            decide
                .GetParameters()
                .All(parameter => parameter.ParameterType != typeof(IClock) && parameter.ParameterType.Name != "NpgsqlConnection")
        );
    }

    [Fact]
    public void Whatever_is_written_goes_through_the_one_pipeline()
    {
        // A session is begun before anybody is known to ask, and what has opened is recorded while nobody does. A piece of
        // a file is bytes, and no request in JSON.
        var beside = new[]
        {
            "Foundation/Commands/CommandPipeline.cs",
            "Host/OpeningSweep.cs",
            "Host/QueueSweep.cs",
            "Host/QuizSweep.cs",
            "Host/ReadySweep.cs",
            "Files/SendPiece.cs",
            "SignIn/StartSession.cs",
            "SignIn/EndSession.cs",
            "Beginning/BeginSchool.cs",
            "People/Welcome.cs",
            "SectionCodes/JoinByCode.cs",
            "SignIn/SignInWithProvider.cs",
            "Account/ChangePassword.cs",
        };
        var root = Path.Combine(TestServer.Root, "src/Polycline.Web");
        Directory
            .EnumerateFiles(root, "*.cs", SearchOption.AllDirectories)
            .Where(path => !path.Contains("/obj/", StringComparison.Ordinal) && !path.Contains("/bin/", StringComparison.Ordinal))
            .Where(path => File.ReadAllText(path) is var text && (text.Contains("BeginTransaction") || text.Contains(".Within(")))
            .Select(path => Path.GetRelativePath(root, path))
            .ShouldBe(beside, ignoreOrder: true);
        // A store writes on the connection it is given; those that open one of their own read.
        File.ReadAllText(Path.Combine(TestServer.Root, "src/Polycline.Data/Courses/EditionStore.cs")).ShouldContain("RepeatableRead");
        Directory
            .EnumerateFiles(Path.Combine(TestServer.Root, "src/Polycline.Data"), "*Store.cs", SearchOption.AllDirectories)
            .Where(path => File.ReadAllText(path).Contains("ReadCommitted", StringComparison.Ordinal))
            .ShouldBeEmpty();
        Commands(typeof(IWorkCommand<,>), typeof(IWorkCommand<,,>)).Count().ShouldBeGreaterThan(10);
    }

    [Fact]
    public void Students_features_have_sights_in_hand_and_never_the_edition_itself()
    {
        var features = Types.InAssembly(Web).That().ResideInNamespace("Polycline.Web.Student");
        features.GetTypes().Count().ShouldBeGreaterThan(5);
        var result = features
            .ShouldNot()
            .HaveDependencyOnAny(
                typeof(EditionPlan).FullName,
                typeof(EditionStore).FullName,
                typeof(PlanSchedule).FullName,
                typeof(Explain).FullName
            )
            .GetResult();
        (result.FailingTypeNames ?? []).ShouldBeEmpty();
    }

    [Fact]
    public void No_handler_asks_the_clock_save_those_that_have_no_viewpoint()
    {
        var handlers = Web.GetTypes()
            .Where(type => type is { IsAbstract: true, IsSealed: true })
            .SelectMany(type => type.GetMethods(BindingFlags.Static | BindingFlags.Public | BindingFlags.NonPublic))
            .Where(method => method.Name.StartsWith("Handle", StringComparison.Ordinal))
            .ToList();
        handlers.Count.ShouldBeGreaterThan(5);
        handlers
            .Where(method => method.GetParameters().Any(parameter => typeof(IClock).IsAssignableFrom(parameter.ParameterType)))
            .Select(method => method.DeclaringType)
            .ShouldBe([typeof(StartSession), typeof(ChangePassword), typeof(Feed)], ignoreOrder: true);
        handlers
            .Where(method => method.DeclaringType!.Name.StartsWith("Read", StringComparison.Ordinal))
            .ShouldEachBe(method =>
                // Those that answer with bytes take all that they need as one.
                method
                    .GetParameters()
                    .Any(parameter => parameter.ParameterType == typeof(Viewpoint) || parameter.ParameterType == typeof(FileAsked))
            );
    }

    // As the formatter breaks them; a component has no formatter that makes it longer.
    private const int MostLines = 350;

    [Fact]
    public void A_file_tells_one_thing_in_few_lines_and_a_feature_has_its_folder_on_both_sides()
    {
        var files = Directory
            .EnumerateFiles(Path.Combine(TestServer.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(path => !path.Contains("/obj/", StringComparison.Ordinal) && !path.Contains("/bin/", StringComparison.Ordinal));
        files.Where(path => File.ReadLines(path).Count() > MostLines).ShouldBeEmpty();
        foreach (var screen in Directory.EnumerateDirectories(Path.Combine(TestServer.Root, "web/src/screens")).Select(Path.GetFileName))
            Directory
                .EnumerateDirectories(Path.Combine(TestServer.Root, "src/Polycline.Web"))
                .Select(Path.GetFileName)
                .ShouldContain(
                    feature =>
                        feature!
                            .Replace("SignIn", "sign-in", StringComparison.Ordinal)
                            .Replace("OneStudent", "one-student", StringComparison.Ordinal)
                            .ToLowerInvariant()
                            .StartsWith(screen!, StringComparison.Ordinal),
                    screen
                );
    }

    private static IEnumerable<Type> Commands(params Type[] kinds) =>
        Web.GetTypes()
            .Where(type => type.GetInterfaces().Any(face => face.IsGenericType && kinds.Contains(face.GetGenericTypeDefinition())));

    private static IEnumerable<string> References(Assembly assembly) =>
        assembly
            .GetReferencedAssemblies()
            .Select(reference => reference.Name!)
            .Where(name => name.StartsWith("Polycline", StringComparison.Ordinal))
            .Order();

    private static IEnumerable<string> Packages(string project) =>
        XDocument
            .Load(Path.Combine(TestServer.Root, "src", project, project + ".csproj"))
            .Descendants("PackageReference")
            .Select(reference => reference.Attribute("Include")!.Value);
}
