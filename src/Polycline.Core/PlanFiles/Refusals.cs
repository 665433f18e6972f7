using Polycline.Core.PlanFiles.Checking;

namespace Polycline.Core.PlanFiles;

/// <summary>A plan file that is refused: nothing of it was read. Source: the plan file, <i>Refusal</i>.</summary>
/// <param name="path">The innermost member at fault, such as <c>$.sections[0].changes[1]</c>.</param>
public sealed class PlanRefusedException(string path, string message) : Exception(message)
{
    public string Path { get; } = path;
}

/// <summary>The faults of one pass; the first in document order is the one that is told.</summary>
internal sealed class FaultList
{
    private long first = long.MaxValue;
    private Func<string> path = () => "$";
    private string message = "";

    public void Add(JsonPiece piece, string why) => Add(piece.At, () => piece.Path, why);

    /// <summary>A member that may not stand there, or stands there a second time.</summary>
    public void Add(JsonPiece owner, JsonPiece.JsonMember member, string why) => Add(member.At, () => owner.PathOf(member.Name), why);

    /// <summary>A member that is missing: after all that its object has.</summary>
    public void AddMissing(JsonPiece owner, string member, string why) => Add(owner.End, () => owner.PathOf(member), why);

    /// <exception cref="PlanRefusedException">There is a fault.</exception>
    public void Throw()
    {
        if (first < long.MaxValue)
            throw new PlanRefusedException(path(), message);
    }

    private void Add(long at, Func<string> where, string why)
    {
        if (at < first)
            (first, path, message) = (at, where, why);
    }
}
