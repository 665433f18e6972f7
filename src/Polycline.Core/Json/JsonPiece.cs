using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Unicode;

namespace Polycline.Core.Json;

/// <summary>What a piece of JSON is.</summary>
internal enum JsonKind
{
    Object,
    List,
    Text,
    Number,
    True,
    False,
    Null,
}

/// <summary>A piece of a JSON text that knows where it stands, so that a fault can be named by its path and found first in order.</summary>
internal sealed class JsonPiece(JsonKind kind, long at)
{
    /// <summary>A member of an object: its name, where that stands, and its value.</summary>
    public readonly record struct JsonMember(string Name, long At, JsonPiece Value);

    private static readonly List<JsonMember> NoMembers = [];
    private static readonly List<JsonPiece> NoItems = [];

    private JsonPiece? owner;
    private string? name;
    private int index;

    public JsonKind Kind { get; } = kind;

    /// <summary>Where it begins, in bytes.</summary>
    public long At { get; } = at;

    /// <summary>Where an object or list ends: its missing members are missing there.</summary>
    public long End { get; private set; } = at;

    /// <summary>Of a text its value, of a number as it is written; null: a text that is no Unicode.</summary>
    public string? Value { get; private init; }

    public List<JsonMember> Members { get; } = kind == JsonKind.Object ? [] : NoMembers;

    public List<JsonPiece> Items { get; } = kind == JsonKind.List ? [] : NoItems;

    /// <summary>The member of that name; null: there is none.</summary>
    public JsonPiece? this[string member]
    {
        get
        {
            foreach (var known in Members)
                if (known.Name == member)
                    return known.Value;
            return null;
        }
    }

    /// <summary>The entries of the list of that name; none where there is no such list.</summary>
    public List<JsonPiece> Each(string list) => this[list]?.Items ?? NoItems;

    public bool IsNull => Kind == JsonKind.Null;

    /// <summary>Such as <c>$.sections[0].changes[1]</c>.</summary>
    public string Path
    {
        get
        {
            var steps = new Stack<string>();
            for (var piece = this; piece.owner is not null; piece = piece.owner)
                steps.Push(piece.name is { } member ? Step(member) : $"[{piece.index.ToString(CultureInfo.InvariantCulture)}]");
            return "$" + string.Concat(steps);
        }
    }

    public string PathOf(string member) => Path + Step(member);

    /// <summary>Reads a whole text, in time and memory linear in its size, however deep it is.</summary>
    /// <returns>Null: it is not JSON in UTF-8.</returns>
    public static JsonPiece? Parse(ReadOnlySpan<byte> text)
    {
        if (!Utf8.IsValid(text))
            return null;
        try
        {
            return Read(new Utf8JsonReader(text, new JsonReaderOptions { MaxDepth = int.MaxValue / 2 }));
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static JsonPiece? Read(Utf8JsonReader reader)
    {
        JsonPiece? root = null;
        var open = new Stack<JsonPiece>();
        (string Name, long At) member = ("", 0);
        while (reader.Read())
        {
            if (reader.TokenType == JsonTokenType.PropertyName)
            {
                if (Text(ref reader) is not { } name)
                    return null;
                member = (name, reader.TokenStartIndex);
                continue;
            }
            if (reader.TokenType is JsonTokenType.EndObject or JsonTokenType.EndArray)
            {
                open.Pop().End = reader.TokenStartIndex;
                continue;
            }
            var piece = Of(ref reader);
            if (open.TryPeek(out var owner))
                owner.Take(piece, member.Name, member.At);
            else
                root = piece;
            if (piece.Kind is JsonKind.Object or JsonKind.List)
                open.Push(piece);
        }
        return root;
    }

    private static JsonPiece Of(ref Utf8JsonReader reader) =>
        reader.TokenType switch
        {
            JsonTokenType.StartObject => new(JsonKind.Object, reader.TokenStartIndex),
            JsonTokenType.StartArray => new(JsonKind.List, reader.TokenStartIndex),
            JsonTokenType.String => new(JsonKind.Text, reader.TokenStartIndex) { Value = Text(ref reader) },
            JsonTokenType.Number => new(JsonKind.Number, reader.TokenStartIndex) { Value = Encoding.UTF8.GetString(reader.ValueSpan) },
            JsonTokenType.True => new(JsonKind.True, reader.TokenStartIndex),
            JsonTokenType.False => new(JsonKind.False, reader.TokenStartIndex),
            _ => new(JsonKind.Null, reader.TokenStartIndex),
        };

    // Half of a pair of surrogates, escaped, is no text.
    private static string? Text(ref Utf8JsonReader reader)
    {
        try
        {
            return reader.GetString();
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }

    private void Take(JsonPiece piece, string member, long memberAt)
    {
        piece.owner = this;
        if (Kind == JsonKind.Object)
        {
            piece.name = member;
            Members.Add(new(member, memberAt, piece));
        }
        else
        {
            piece.index = Items.Count;
            Items.Add(piece);
        }
    }

    private static string Step(string member) =>
        member.Length > 0 && member.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '-' or '_')
            ? "." + member
            : $"['{member.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("'", "\\'", StringComparison.Ordinal)}']";
}
