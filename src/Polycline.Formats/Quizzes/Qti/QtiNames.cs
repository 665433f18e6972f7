using System.Globalization;
using System.Xml.Linq;
using Polycline.Core.Marking;

namespace Polycline.Formats.Quizzes.Qti;

/// <summary>The names of Question and Test Interoperability 2.2, of content packages, and of what they hold.</summary>
internal static class QtiNames
{
    public const string Manifest = "imsmanifest.xml";
    public const string Response = "RESPONSE";
    public const string Score = "SCORE";
    public const string MaxScore = "MAXSCORE";
    public const string Feedback = "FEEDBACK";
    public const string Reply = "REPLY";
    public const string ItemType = "imsqti_item_xmlv2p2";
    public const string TestType = "imsqti_test_xmlv2p2";

    public static readonly XNamespace V2 = "http://www.imsglobal.org/xsd/imsqti_v2p2";
    public static readonly XNamespace Package = "http://www.imsglobal.org/xsd/imscp_v1p1";
    public static readonly XNamespace Math = "http://www.w3.org/1998/Math/MathML";

    public static XElement Value(string value) => new(V2 + "value", value);

    /// <summary>A number as floats are written: with at most nine decimals.</summary>
    public static string Float(Fraction number) =>
        decimal.Round((decimal)number.Above / (decimal)number.Below, 9).ToString("0.#########", CultureInfo.InvariantCulture);
}
