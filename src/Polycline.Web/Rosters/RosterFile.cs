using System.Collections.Immutable;
using Polycline.Formats.Rosters;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Rosters;

/// <summary>A roster as it comes in: a file in base64.</summary>
internal static class RosterFile
{
    public const int Largest = 15_000_000;

    /// <summary>As long as a request with such a file can be.</summary>
    public const long LargestRequest = Largest * 4L / 3 + 100_000;

    /// <exception cref="ProblemException">It is no file, or too large.</exception>
    public static byte[] Bytes(string base64)
    {
        if (base64.Length > Largest * 4L / 3 + 4)
            throw Problem.Field("file", "This file is larger than 15 MB.");
        try
        {
            var bytes = Convert.FromBase64String(base64);
            return bytes.Length > 0 ? bytes : throw Problem.Field("file", "This file is empty.");
        }
        catch (FormatException)
        {
            throw Problem.Field("file", "This is not a file in base64.");
        }
    }

    /// <param name="columns">Of a table; nothing is asked of them for a zip.</param>
    /// <exception cref="ProblemException">It is no roster.</exception>
    public static Roster Read(byte[] bytes, IReadOnlyList<RosterColumn>? columns) =>
        Try(() =>
            OneRoster.IsZip(bytes) ? OneRoster.Read(bytes) : RosterCsv.Read(bytes, [.. columns ?? RosterCsv.Headings(bytes).Guessed])
        );

    /// <exception cref="ProblemException">It is no table.</exception>
    public static (IReadOnlyList<string> Headings, ImmutableArray<RosterColumn> Guessed) Headings(byte[] bytes) =>
        Try(() => RosterCsv.Headings(bytes));

    private static T Try<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (RosterRefusedException fault)
        {
            throw Problem.Field("file", fault.Message);
        }
    }
}
