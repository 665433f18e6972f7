using System.Xml.Linq;
using Polycline.Core.Marking;
using static Polycline.Formats.Quizzes.Qti.QtiNames;

namespace Polycline.Formats.Quizzes.Qti;

/// <summary>What the rules are made of by which an item is scored.</summary>
internal static class QtiRules
{
    public static XElement Outcome(string name, string type, XAttribute? more, string? value, string cardinality = "single") =>
        new(
            V2 + "outcomeDeclaration",
            new XAttribute("identifier", name),
            new XAttribute("cardinality", cardinality),
            new XAttribute("baseType", type),
            more,
            value is null ? null : new XElement(V2 + "defaultValue", QtiNames.Value(value))
        );

    public static XElement Set(string name, string type, string value) => Set(name, Value(type, value));

    public static XElement Set(string name, XElement value) => new(V2 + "setOutcomeValue", new XAttribute("identifier", name), value);

    public static XElement If(XElement condition, XElement then) =>
        new(V2 + "responseCondition", new XElement(V2 + "responseIf", new XElement(condition), then));

    public static XElement Variable(string name) => new(V2 + "variable", new XAttribute("identifier", name));

    public static XElement Value(string type, string value) => new(V2 + "baseValue", new XAttribute("baseType", type), value);

    public static XElement Equal(string name, QuestionKey.NumberKey number) =>
        new(
            V2 + "equal",
            number.Tolerance.Sign > 0
                ? new object[]
                {
                    new XAttribute("toleranceMode", "absolute"),
                    new XAttribute("tolerance", $"{Float(number.Tolerance)} {Float(number.Tolerance)}"),
                }
                : [new XAttribute("toleranceMode", "exact")],
            Variable(name),
            new XElement(V2 + "correct", new XAttribute("identifier", name))
        );
}
