namespace Polycline.Core.Changes;

/// <summary>How far a change reaches, which decides how it is asked about.</summary>
public enum Effect
{
    /// <summary>Nothing changes for students: it is done at once.</summary>
    None,

    /// <summary>Something changes for them, and nothing is taken: what it does is shown before.</summary>
    Some,

    /// <summary>It takes something from students' view, shuts it, makes them overdue, or touches what they have begun.</summary>
    Takes,
}
