using System.Text.Json;
using System.Text.Json.Serialization;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Formats.Rosters;
using Polycline.Formats.Schemes;
using Polycline.Web.OneStudent;
using Polycline.Web.People;
using Polycline.Web.Rosters;
using Polycline.Web.SectionCodes;
using Polycline.Web.Team;

namespace Polycline.Web.Foundation.Http;

/// <summary>How requests and answers are written.</summary>
public static class Json
{
    public static readonly JsonSerializerOptions Options = With(new(JsonSerializerDefaults.Web));

    public static JsonSerializerOptions With(JsonSerializerOptions options)
    {
        options.NumberHandling = JsonNumberHandling.Strict;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        options.Converters.Add(new IdConverters());
        options.Converters.Add(new WordConverter<Level>());
        options.Converters.Add(new WordConverter<DateField>());
        options.Converters.Add(new WordConverter<AdjustedField>());
        options.Converters.Add(new WordConverter<Basis>());
        options.Converters.Add(new WordConverter<SchoolRole>());
        options.Converters.Add(new WordConverter<RosterColumn>());
        options.Converters.Add(new WordConverter<RosterOutcome>());
        options.Converters.Add(new WordConverter<SchemeLevel>());
        options.Converters.Add(new WordConverter<TeamRole>());
        options.Converters.Add(new WordConverter<StudentChange>());
        options.Converters.Add(new WordConverter<MovedState>());
        options.Converters.Add(new WordConverter<MoveChoice>());
        options.Converters.Add(new WordConverter<JoinedAs>());
        return options;
    }

    /// <summary>A word from outside that is none of those there are; its message names them.</summary>
    public sealed class UnknownWordException(string message) : JsonException(message);

    /// <summary>The words a member of this type travels as; empty where it is no enumeration that does.</summary>
    public static IReadOnlyList<string> WordsOf(Type type) =>
        Options
            .Converters.OfType<ITravelAsWords>()
            .FirstOrDefault(converter => converter.Type == (Nullable.GetUnderlyingType(type) ?? type))
            ?.Words
        ?? [];

    private interface ITravelAsWords
    {
        Type? Type { get; }

        IReadOnlyList<string> Words { get; }
    }

    // A member of an enumeration travels as its word.
    private sealed class WordConverter<T> : JsonConverter<T>, ITravelAsWords
        where T : struct, Enum
    {
        public IReadOnlyList<string> Words { get; } = [.. Enum.GetValues<T>().Select(EnumNames.Of)];

        public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String && reader.GetString() is { } word && Words.Contains(word)
                ? EnumNames.Parse<T>(word)
                : throw new UnknownWordException($"Choose one of: {string.Join(", ", Words)}.");

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            writer.WriteStringValue(EnumNames.Of(value));
    }

    // An id travels as its number.
    private sealed class IdConverters : JsonConverterFactory
    {
        public override bool CanConvert(Type typeToConvert) =>
            typeToConvert.IsGenericType && typeToConvert.GetGenericTypeDefinition() == typeof(Id<>);

        public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
            (JsonConverter)Activator.CreateInstance(typeof(IdConverter<>).MakeGenericType(typeToConvert.GenericTypeArguments))!;
    }

    private sealed class IdConverter<T> : JsonConverter<Id<T>>
    {
        public override Id<T> Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.Number && reader.TryGetInt64(out var value) && value > 0
                ? new(value)
                : throw new JsonException();

        public override void Write(Utf8JsonWriter writer, Id<T> value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.Value);
    }
}
