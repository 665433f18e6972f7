namespace Polycline.Web.Rosters;

/// <summary>What becomes of a row.</summary>
public enum RosterOutcome
{
    /// <summary>Somebody or something that is not here yet.</summary>
    New,
    Changed,

    /// <summary>A place ends, because the file says when.</summary>
    Ending,

    /// <summary>A place here that the file does not have.</summary>
    Missing,

    /// <summary>The file and what is here do not agree; what is here is left.</summary>
    Conflict,
    Fault,
    Same,
}

/// <param name="File">The table it stands in; empty: it is not in the file.</param>
/// <param name="Row">From 1; 0: it is not in the file.</param>
/// <param name="Words">What becomes of whom.</param>
/// <param name="Reason">Why; it may be empty.</param>
public sealed record RosterLine(RosterOutcome Outcome, string File, int Row, string Words, string Reason);
