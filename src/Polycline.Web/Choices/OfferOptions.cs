using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Choices;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline.Items;

namespace Polycline.Web.Choices;

/// <param name="Options">In their order.</param>
/// <param name="Picks">How many can be picked at once.</param>
/// <param name="IsFinal">Whether what is picked stays picked, unless a teacher changes it.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record OfferOptionsRequest(Id<Item> Item, IReadOnlyList<OptionForm> Options, int Picks, bool IsFinal, long Version);

/// <param name="Option">As it was read; null: it is new.</param>
/// <param name="Room">For how many students of a section; null: any number.</param>
public sealed record OptionForm(string? Option, string Title, string Words = "", int? Room = null, OptionPictureForm? Picture = null);

/// <param name="Source">Where it is: of an item of this course, or of what one has just sent.</param>
/// <param name="Words">What it shows, for people who cannot see it.</param>
public sealed record OptionPictureForm(string Source, string Words = "")
{
    /// <param name="address">Of the item.</param>
    public static OptionPictureForm? Of(OptionPicture? picture, string address) =>
        picture is null ? null : new($"{address}/pictures/{picture.File}", picture.Words);
}

/// <summary>What a choice offers, as it is sent.</summary>
public sealed record OfferForm(IReadOnlyList<OptionForm> Options, int Picks, bool IsFinal)
{
    /// <param name="address">Of the item, for its pictures.</param>
    /// <returns>Null: it is no choice.</returns>
    public static OfferForm? Of(Item item, string address) =>
        item.Kind != ItemKind.Choice
            ? null
            : new(
                [
                    .. item.Options.Select(option =>
                        item.Offered?.Options.FirstOrDefault(one => one.Option == option) is { } known
                            ? new OptionForm(option, known.Title, known.Words, known.Room, OptionPictureForm.Of(known.Picture, address))
                            : new OptionForm(option, option)
                    ),
                ],
                item.Picks,
                item.Offered?.IsFinal == true
            );
}

/// <summary>Which options of a choice have ever been picked, and the pictures that options may show.</summary>
public sealed record OptionsInUse(IReadOnlySet<string> Picked, TextPictures Pictures);

/// <summary>Says what a choice offers, how many of it can be picked, and for how many there is room.</summary>
public sealed class OfferOptions : IPlanningCommand<EditionPlan, OptionsInUse, OfferOptionsRequest>
{
    private const int LongestAddress = 300;

    public static string Name => "offer-options";

    public static IValidator<OfferOptionsRequest> Validator { get; } = new Rules();

    public static async Task<OptionsInUse> Read(NpgsqlConnection connection, EditionPlan plan, OfferOptionsRequest request) =>
        new(
            await PickStore.EverPicked(connection, request.Item),
            await TextPictures.Read(
                connection,
                plan.Id,
                string.Concat(
                    request.Options.Select(option => option.Picture).OfType<OptionPictureForm>().Select(one => $"src={one.Source} ")
                )
            )
        );

    public static CommandDecision Decide(EditionPlan plan, OptionsInUse known, OfferOptionsRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        if (item.Kind != ItemKind.Choice)
            throw Problem.Field("item", "Only a choice has options. Add a choice first.");
        for (var n = 0; n < request.Options.Count; n++)
            if (request.Options[n].Option is { } named && !item.Options.Contains(named))
                throw Problem.Unknown($"options[{n}].option");
        foreach (var gone in item.Options.Where(option => request.Options.All(one => one.Option != option)))
            NeedsFree(plan, item, gone, known);
        var next = 0;
        var taken = item.Options.Concat(known.Picked).ToHashSet(StringComparer.Ordinal);
        var offered = new Offered(
            [
                .. request.Options.Select(
                    (one, n) =>
                        new OfferedOption(one.Option ?? NewId(), one.Title.Trim(), one.Words.Trim(), one.Room)
                        {
                            Picture = PictureOf(one, n),
                        }
                ),
            ],
            request.IsFinal
        );
        string[] options = [.. offered.Options.Select(one => one.Option)];
        var after = item with { Options = [.. options], Offered = offered, Picks = request.Picks };
        return
            OfferWords.InFull(item) == OfferWords.InFull(after)
            && item.Options.SequenceEqual(options)
            && OptionPictures.Kept(item.Offered)?.Hash == OptionPictures.Kept(offered)?.Hash
            ? new($"left the options of “{item.Title}” as they are", [])
            : new(
                $"set the options of “{item.Title}”: {OfferWords.Of(after)}",
                [
                    Change.Set(
                        Tables.Items.Table,
                        request.Item,
                        request.Version,
                        Tables.Items.Options.Turns(Names(item.Options), Names(options)),
                        Tables.Items.Picks.Turns(item.Picks, request.Picks),
                        Tables.Items.Offered.Turns(item.Offered, offered)
                    ),
                ],
                null,
                [.. new[] { OptionPictures.Kept(offered) }.OfType<Body>()]
            )
            {
                Act = "Save the options",
            };

        OptionPicture? PictureOf(OptionForm one, int n) =>
            one.Picture is not { } picture ? null
            : known.Pictures.Stored("img", picture.Source, viewpoint, $"options[{n}].picture") is { } name
                ? new(name["file:".Length..], picture.Words.Trim())
            : throw Problem.Field($"options[{n}].picture", "This picture is no longer here. Add it again.");

        string NewId()
        {
            while (!taken.Add($"o{++next}")) { }
            return $"o{next}";
        }
    }

    private static JsonNode? Names(IEnumerable<string> options) => JsonSerializer.SerializeToNode(options);

    // What hangs on it could never open again, and what was picked would be nothing.
    private static void NeedsFree(EditionPlan plan, Item choice, string option, OptionsInUse known)
    {
        if (known.Picked.Contains(option))
            throw Problem.Field(
                "options",
                $"Somebody has picked “{choice.TitleOf(option)}” at some time, so it stays. "
                    + "Give it another name if it is to be something else."
            );
        var hanging = plan
            .Edition.InReadingOrder()
            .Where(item =>
                item.Gate?.Root.Leaves().OfType<GateNode.Picked>().Any(leaf => leaf.Choice == choice.Ref && leaf.Option == option) == true
            )
            .Select(item => plan.Schedule.CodeOf[item.Ref])
            .ToList();
        if (hanging.Count > 0)
            throw Problem.Field(
                "options",
                $"{Counting.Joined(hanging, "and")} {(hanging.Count == 1 ? "opens" : "open")} by “{choice.TitleOf(option)}”. "
                    + "Change that condition first."
            );
    }

    private sealed class Rules : AbstractValidator<OfferOptionsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Options)
                .Must(options => options.Count is >= 2 and <= Offered.MostOptions)
                .WithMessage($"A choice has 2 to {Offered.MostOptions} options.")
                .Must(options => options.All(one => Bounds.IsVisible(one.Title) && one.Title.Trim().Length <= Offered.LongestTitle))
                .WithMessage($"Name each option in up to {Offered.LongestTitle} characters.")
                .Must(options => options.Select(one => one.Title.Trim().ToUpperInvariant()).Distinct().Count() == options.Count)
                .WithMessage("Two options have the same name. Give each its own.")
                .Must(options => options.Select(one => one.Option).OfType<string>().GroupBy(one => one).All(one => one.Count() == 1))
                .WithMessage("The same option is here twice.")
                .Must(options => options.All(one => one.Words.Trim().Length <= Offered.LongestWords))
                .WithMessage($"Describe each option in up to {Offered.LongestWords:N0} characters.")
                .Must(options => options.All(one => one.Room is null or (>= 1 and <= Offered.MostRoom)))
                .WithMessage($"Give room for 1 to {Offered.MostRoom} students, or leave it empty for any number.");
            RuleFor(request => request.Options)
                .Must(options => options.All(one => one.Picture is null || one.Picture.Source.Length <= LongestAddress))
                .WithMessage("This is not the address of a picture.")
                .Must(options => options.All(one => one.Picture is null || one.Picture.Words.Trim().Length <= OptionPicture.LongestWords))
                .WithMessage($"Say what a picture shows in up to {OptionPicture.LongestWords} characters.");
            RuleFor(request => request.Picks)
                .Must((request, picks) => picks >= 1 && picks < Math.Max(2, request.Options.Count))
                .WithMessage("Fewer can be picked than there are options, and at least one.");
        }
    }
}
