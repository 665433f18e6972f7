using System.Globalization;
using System.Xml.Linq;

namespace Polycline.Tests.Formats.Quizzes;

/// <summary>
/// Scores an assessment item by what its own response processing says, following the specification of QTI 2.2 and knowing nothing of
/// how the item was written.
/// </summary>
internal sealed class QtiScorer(XElement item, IReadOnlyDictionary<string, string[]> responses)
{
    private readonly Dictionary<string, decimal> outcomes = item.Elements()
        .Where(element => element.Name.LocalName == "outcomeDeclaration" && (string?)element.Attribute("baseType") == "float")
        .ToDictionary(
            element => (string)element.Attribute("identifier")!,
            element => element.Value.Length == 0 ? 0 : Number(element.Value)
        );

    /// <param name="responses">By response identifier; a directed pair is two identifiers with a blank between.</param>
    /// <returns>The outcome <c>SCORE</c>.</returns>
    public static decimal Score(XElement item, IReadOnlyDictionary<string, string[]> responses)
    {
        var scorer = new QtiScorer(item, responses);
        foreach (var rule in item.Elements().Single(element => element.Name.LocalName == "responseProcessing").Elements())
            scorer.Rule(rule);
        return scorer.outcomes["SCORE"];
    }

    private void Rule(XElement rule)
    {
        if (rule.Name.LocalName == "setOutcomeValue")
        {
            if (outcomes.ContainsKey(Name(rule)))
                outcomes[Name(rule)] = Float(rule.Elements().Single());
        }
        else if (rule.Name.LocalName == "responseCondition")
        {
            var branch = rule.Elements().Single(element => element.Name.LocalName == "responseIf");
            if (True(branch.Elements().First()))
                foreach (var then in branch.Elements().Skip(1))
                    Rule(then);
        }
        else
            throw new NotSupportedException(rule.Name.LocalName);
    }

    private decimal Float(XElement expression) =>
        expression.Name.LocalName switch
        {
            "baseValue" => Number(expression.Value),
            "variable" => outcomes[Name(expression)],
            "sum" => expression.Elements().Sum(Float),
            "mapResponse" => Mapped(Declaration(Name(expression)), Given(Name(expression))),
            var other => throw new NotSupportedException(other),
        };

    private bool True(XElement expression)
    {
        var parts = expression.Elements().ToList();
        switch (expression.Name.LocalName)
        {
            case "and":
                return parts.All(True);
            case "gt":
                return Float(parts[0]) > Float(parts[1]);
            case "isNull":
                return Given(Name(parts[0])).Length == 0;
            case "match":
                var (given, right) = (Given(Name(parts[0])), Correct(Name(parts[1])));
                return (string?)Declaration(Name(parts[1])).Attribute("cardinality") == "ordered"
                    ? given.SequenceEqual(right)
                    : given.Order(StringComparer.Ordinal).SequenceEqual(right.Order(StringComparer.Ordinal));
            case "equal":
                if (Given(Name(parts[0])) is not [var typed])
                    return false;
                var by = (string?)expression.Attribute("tolerance") is { } tolerance ? Number(tolerance.Split(' ')[0]) : 0;
                return Math.Abs(Number(typed) - Number(Correct(Name(parts[1])).Single())) <= by;
            default:
                throw new NotSupportedException(expression.Name.LocalName);
        }
    }

    private static decimal Mapped(XElement declaration, string[] given)
    {
        var mapping = declaration.Elements().Single(element => element.Name.LocalName == "mapping");
        var sum = given
            .Distinct()
            .Sum(value =>
                mapping.Elements().FirstOrDefault(entry => Alike(entry, value)) is { } entry
                    ? Number((string)entry.Attribute("mappedValue")!)
                    : Number((string?)mapping.Attribute("defaultValue") ?? "0")
            );
        if ((string?)mapping.Attribute("lowerBound") is { } low)
            sum = Math.Max(sum, Number(low));
        return (string?)mapping.Attribute("upperBound") is { } high ? Math.Min(sum, Number(high)) : sum;
    }

    private static bool Alike(XElement entry, string value) =>
        string.Equals(
            (string)entry.Attribute("mapKey")!,
            value,
            (string?)entry.Attribute("caseSensitive") == "false" ? StringComparison.OrdinalIgnoreCase : StringComparison.Ordinal
        );

    private string[] Given(string name) => responses.GetValueOrDefault(name) ?? [];

    private string[] Correct(string name) =>
        [
            .. Declaration(name)
                .Elements()
                .Where(element => element.Name.LocalName == "correctResponse")
                .Elements()
                .Select(value => value.Value),
        ];

    private XElement Declaration(string name) =>
        item.Elements().Single(element => element.Name.LocalName == "responseDeclaration" && Name(element) == name);

    private static string Name(XElement element) => (string)element.Attribute("identifier")!;

    private static decimal Number(string text) => decimal.Parse(text, NumberStyles.Float, CultureInfo.InvariantCulture);
}
