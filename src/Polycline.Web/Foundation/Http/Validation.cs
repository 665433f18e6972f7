using System.Text.Json;
using FluentValidation;

namespace Polycline.Web.Foundation.Http;

/// <summary>Requests held against their rules.</summary>
public static class Validation
{
    /// <exception cref="ProblemException">A rule is broken: the first, at its field.</exception>
    public static void Hold<T>(this IValidator<T> rules, T request)
    {
        if (rules.Validate(request).Errors is [var first, ..])
            throw Problem.Field(FieldOf(first.PropertyName), first.ErrorMessage);
    }

    // People[0].Email → people[0].email
    private static string FieldOf(string property) => string.Join('.', property.Split('.').Select(JsonNamingPolicy.CamelCase.ConvertName));
}
