namespace Polycline.Core.Release.Compiled;

/// <summary>What a step of a gate asks.</summary>
internal enum GateStepKind : byte
{
    /// <summary>All under it; of nothing: always.</summary>
    All,

    /// <summary>Some under it; of nothing: never.</summary>
    Any,
    AtLeast,
    Not,

    /// <summary>Some of the deeds in <see cref="GateStep.Least"/> with item <see cref="GateStep.Item"/>.</summary>
    Done,

    /// <summary>
    /// The best score in item <see cref="GateStep.Item"/> lies in a part from <see cref="GateStep.Least"/> to before <see
    /// cref="GateStep.Below"/>.
    /// </summary>
    Best,

    /// <summary>The same of the latest score.</summary>
    Latest,

    /// <summary>Option number <see cref="GateStep.Least"/> of item <see cref="GateStep.Item"/> is picked.</summary>
    Picked,

    /// <summary>The moment has come.</summary>
    Since,

    /// <summary>Another gate, that of number <see cref="GateStep.Item"/>, is met now.</summary>
    Gate,
}

/// <summary>
/// A node of a gate laid out before its children, one after the other: the first child of a step follows it, each further
/// one comes <see cref="Length"/> steps after the one before.
/// </summary>
/// <param name="Length">It and all steps under it.</param>
/// <param name="Since">In ticks of 100 ns from 1970.</param>
internal readonly record struct GateStep(GateStepKind Kind, int Length = 1, int Item = 0, int Least = 0, int Below = 0, long Since = 0);

/// <summary>What a student has done with an item, as bits.</summary>
[Flags]
internal enum Deeds : byte
{
    None = 0,
    Opened = 1,
    Ticked = 2,
    Submitted = 4,

    /// <summary>The latest giving back says <i>go on</i>.</summary>
    Returned = 8,

    /// <summary>Something that stays readable.</summary>
    Begun = 16,
    Scored = 32,
    Picked = 64,
}
