using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Twenty-five pieces read, marked and given back without the mouse.</summary>
public sealed class MarkingByKeysWalk(PublishedSchool school, ITestOutputHelper output) : IClassFixture<PublishedSchool>
{
    private const int Pieces = 25;

    // A digit that shows its points, and the place of a level that has a name.
    private static readonly string[] Diary = ["3", "2", "3", "1"],
        FourTimes = ["4", "4", "4", "4"];

    [Fact]
    public void Twenty_five_pieces_by_keys_alone()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/work");
        orla.See(ToRead(36));
        orla.IsAccessible("work, in the order that frees most");
        // What frees most comes first.
        orla.See("//li[1]//span[normalize-space() = 'frees 3.08']");
        // The row in view stays in view, however far the arrows lead.
        for (var down = 0; down < 24; down++)
            orla.Type(Keys.ArrowDown);
        orla.Until(
            () =>
                orla.Ask<bool>(
                    "const row = document.querySelector('li button[aria-current]'), list = row.closest('ul').getBoundingClientRect(), "
                        + "own = row.getBoundingClientRect(); return own.bottom <= list.bottom + 1 && row.textContent.includes('2.17')"
                ),
            "the row of the piece"
        );
        for (var up = 0; up < 24; up++)
            orla.Type(Keys.ArrowUp);
        var (presses, byRubric) = (0, 0);
        Press("m");
        for (var left = 36; left > 36 - Pieces; left--)
        {
            orla.See(ToRead(left));
            orla.Until(() => HasRubric() || orla.Focus().TagName is "input" or "textarea", "a field of the next piece");
            // A rubric takes a digit for each criterion and Enter, what is marked its mark and Enter, what is not a word.
            if (HasRubric())
            {
                Press([.. orla.Ask<bool>("return document.body.innerText.includes('Fastest fall')") ? FourTimes : Diary, Keys.Enter]);
                byRubric++;
            }
            else if (orla.Focus().TagName == "input")
                Press("9", Keys.Enter);
            else
                Press("o", "k", Keys.Control + Keys.Enter);
        }
        orla.See(ToRead(36 - Pieces));
        output.WriteLine($"{Pieces} pieces, {byRubric} of them by a rubric of four criteria: {presses} presses");
        byRubric.ShouldBeGreaterThan(10);
        presses.ShouldBe(1 + (2 * Pieces) + (3 * byRubric));
        orla.HeardNoComplaint();

        // In the section in view: another one may have as many.
        static string ToRead(int pieces) =>
            "//p[@aria-label = 'Sections']//button[@aria-pressed = 'true' and contains(., '" + $"{pieces} to read')]";

        bool HasRubric() => orla.Ask<bool>("return !!document.querySelector('article .rubric')");

        void Press(params string[] keys)
        {
            foreach (var key in keys)
            {
                orla.Type(key);
                presses++;
            }
        }
    }
}
