namespace Polycline.Core.Calendars;

/// <summary>Something noticed in one section. Source: the computation, chapters 2 to 4.</summary>
/// <param name="Code">Such as <c>overflow</c>.</param>
/// <param name="Target">What it is about: an id, or a local date or moment.</param>
/// <param name="By">How much, where the code has an amount.</param>
public sealed record Finding(string Code, string Target, int? By = null);
