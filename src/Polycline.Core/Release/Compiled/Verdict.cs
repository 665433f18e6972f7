namespace Polycline.Core.Release.Compiled;

/// <summary>
/// A decision without its reasons, in one byte: the state, what is seen, and behind a withdrawal the state that applied.
/// Source: the computation, chapter 5, <i>Decision</i> and <i>What they see</i>.
/// </summary>
public readonly record struct Verdict
{
    private const int SeesFrom = 4;
    private const byte StateBits = 0b1111;
    private const byte IsWithdrawn = 0b1000_0000;

    private Verdict(byte code) => Code = code;

    /// <summary>The byte it is kept in.</summary>
    public byte Code { get; }

    public ReleaseState State => Code >= IsWithdrawn ? ReleaseState.Withdrawn : (ReleaseState)(Code & StateBits);

    public Sees Sees => Code >= IsWithdrawn ? Sees.Read : (Sees)(Code >> SeesFrom);

    /// <summary>What would be decided if the student had not begun; of <see cref="ReleaseState.Withdrawn"/> only.</summary>
    public ReleaseState? Because => Code >= IsWithdrawn ? (ReleaseState)(Code & StateBits) : null;

    public static Verdict Of(byte code) => new(code);

    public static Verdict Of(ReleaseState state, Sees sees) => new((byte)((int)state | ((int)sees << SeesFrom)));

    /// <summary>The same for a student who has begun: what someone has begun stays readable to them.</summary>
    public Verdict OnceBegun() =>
        State
            is ReleaseState.Unpublished
                or ReleaseState.NotAssigned
                or ReleaseState.Held
                or ReleaseState.Unscheduled
                or ReleaseState.Upcoming
                or ReleaseState.Locked
            ? new((byte)(IsWithdrawn | (int)State))
            : this;
}
