using System.Text.Json;

namespace Polycline.Core.Json;

/// <summary>A file that is refused: nothing of it was read. Source: the plan file, <i>Refusal</i>.</summary>
/// <param name="path">The innermost member at fault, such as <c>$.sections[0].changes[1]</c>.</param>
public sealed class FileRefusedException(string path, string message) : Exception(message)
{
    public string Path { get; } = path;

    /// <summary>Writes where and why.</summary>
    public void Write(Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteStartObject("error");
        json.WriteString("path", Path);
        json.WriteString("message", Message);
        json.WriteEndObject();
        json.WriteEndObject();
        json.Flush();
    }
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

    /// <summary>One pass over a file.</summary>
    /// <exception cref="FileRefusedException">It found a fault.</exception>
    public static void Pass(Action<FaultList> check)
    {
        var faults = new FaultList();
        check(faults);
        faults.Throw();
    }

    /// <exception cref="FileRefusedException">There is a fault.</exception>
    public void Throw()
    {
        if (first < long.MaxValue)
            throw new FileRefusedException(path(), message);
    }

    private void Add(long at, Func<string> where, string why)
    {
        if (at < first)
            (first, path, message) = (at, where, why);
    }
}
