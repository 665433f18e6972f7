using FluentValidation;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Texts;

/// <summary>What is held against a text that somebody sends.</summary>
public static class TextRules
{
    /// <summary>In characters.</summary>
    public const int Longest = 200_000;

    /// <summary>It can be read: neither too long nor too deep, nor of too many elements.</summary>
    public static void IsText<T>(this IRuleBuilderInitial<T, string> rule) =>
        rule.MaximumLength(Longest)
            .WithMessage($"This text is too long: {Longest:N0} characters at most. Split it in two.")
            .Custom(
                (html, context) =>
                {
                    if (FormattedText.Fault(html) is { } fault)
                        context.AddFailure(fault);
                }
            );
}
