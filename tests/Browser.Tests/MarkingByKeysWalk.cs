using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Twenty-five pieces read, marked and given back without the mouse.</summary>
public sealed class MarkingByKeysWalk(PublishedSchool school, ITestOutputHelper output) : IClassFixture<PublishedSchool>
{
    private const int Pieces = 25;

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
                    "const row = document.querySelector('li [aria-current]'), list = row.closest('ul').getBoundingClientRect(), "
                        + "own = row.getBoundingClientRect(); return own.bottom <= list.bottom + 1 && row.textContent.includes('2.17')"
                ),
            "the row of the piece"
        );
        for (var up = 0; up < 24; up++)
            orla.Type(Keys.ArrowUp);
        var presses = 0;
        Press("m");
        for (var left = 36; left > 36 - Pieces; left--)
        {
            orla.See(ToRead(left));
            orla.Until(() => orla.Focus().TagName is "input" or "textarea", "a field of the next piece");
            // What is marked takes its mark and Enter; what is not, a word.
            if (orla.Focus().TagName == "input")
                Press("9", Keys.Enter);
            else
                Press("o", "k", Keys.Control + Keys.Enter);
        }
        orla.See(ToRead(36 - Pieces));
        output.WriteLine($"{Pieces} pieces, {presses} presses");
        presses.ShouldBe(1 + (2 * Pieces));
        orla.HeardNoComplaint();

        // In the section in view: another one may have as many.
        static string ToRead(int pieces) =>
            "//p[@aria-label = 'Sections']//button[@aria-pressed = 'true' and contains(., '" + $"{pieces} to read')]";

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
