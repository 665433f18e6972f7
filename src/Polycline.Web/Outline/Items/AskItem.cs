using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Items;

/// <param name="Asks">Null: what its kind usually asks.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record AskItemRequest(Id<Item> Item, AsksForm? Asks, long Version);

/// <summary>Says what an item asks of a student: what is to be handed in, a log, or a tick.</summary>
public sealed class AskItem : IPlanningCommand<EditionPlan, AskItemRequest>
{
    private const int MostFiles = 12,
        LongestName = 80,
        MostGroups = 50;

    public static string Name => "ask-item";

    public static IValidator<AskItemRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, AskItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var asks = request.Asks?.Meant();
        if (asks?.Suits(item.Kind) == false)
            throw Problem.Field(
                "asks",
                asks.Way == AskedWay.Tick
                    ? $"A {EnumNames.Of(item.Kind)} can’t be ticked off."
                    : "Students can only hand something in for a task or a handout. Add one of these for it."
            );
        if (
            (asks ?? Asks.Usual(item.Kind))?.Way != AskedWay.Work
            && item.Files.FirstOrDefault(file => file.Way == FileWay.Copy) is { } copied
        )
            throw Problem.Field("asks", $"Each student gets a copy of “{copied.Name}” to hand in. First give that file to read.");
        if (asks?.Together.FirstOrDefault(name => plan.Groups.All(group => group.Name != name)) is { } unknown)
            throw Problem.Field(
                "asks",
                $"There is no group {unknown} in this course. Choose one of its groups, or add it in Sections first."
            );
        if (asks == Asks.Usual(item.Kind))
            asks = null;
        return item.Asks == asks
            ? new($"left what “{item.Title}” asks for as it is", [])
            : new(
                $"set what “{item.Title}” asks for: {AsksWords.Of(asks ?? Asks.Usual(item.Kind))}",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Asks.Turns(item.Asks, asks))]
            )
            {
                Act = "Set what it asks for",
            };
    }

    private sealed class Rules : AbstractValidator<AskItemRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Asks!.Way).Must(Is<AskedWay>).WithMessage(Choose<AskedWay>()).When(Given);
            RuleFor(request => request.Asks!.Text).Must(Is<AskedPart>).WithMessage(Choose<AskedPart>()).When(Given);
            RuleFor(request => request.Asks!.Links).Must(Is<AskedPart>).WithMessage(Choose<AskedPart>()).When(Given);
            RuleFor(request => request.Asks!.Files)
                .Must(files => files.Count <= MostFiles)
                .WithMessage($"You can ask for up to {MostFiles} files by name.")
                .Must(files => files.All(file => Bounds.IsVisible(file.What) && file.What.Trim().Length <= LongestName))
                .WithMessage($"Say what each file is, such as “the photograph”, in up to {LongestName} characters.")
                .Must(files => files.Select(file => file.What.Trim().ToUpperInvariant()).Distinct().Count() == files.Count)
                .WithMessage("Two files have the same name. Give each a name of its own.")
                .Must(files => files.All(file => file.Kind is null || Is<AskedKind>(file.Kind)))
                .WithMessage(Choose<AskedKind>())
                .When(Given);
            RuleFor(request => request.Asks!.Together)
                .Must(groups => groups is null || (groups.Count <= MostGroups && groups.Distinct().Count() == groups.Count))
                .WithMessage($"Choose up to {MostGroups} groups, each once.")
                .When(Given);
            RuleFor(request => request.Asks!)
                .Must(asks => asks is not { Way: "work", Text: "no", Links: "no", Others: false, Files.Count: 0 })
                .WithMessage("Nothing could be handed in. Take text, links or files, or have it ticked off instead.")
                .When(Given);
        }

        private static bool Given(AskItemRequest request) => request.Asks is not null;

        private static bool Is<T>(string word)
            where T : struct, Enum => Enum.GetValues<T>().Select(EnumNames.Of).Contains(word);

        private static string Choose<T>()
            where T : struct, Enum => $"Choose one of: {string.Join(", ", Enum.GetValues<T>().Select(EnumNames.Of))}.";
    }
}
