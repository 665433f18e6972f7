namespace Polycline.Core.Sections;

/// <summary>One class group in one term, following an edition.</summary>
public sealed record Section(Id<Section> Id, string Name);

/// <summary>Somebody with an account.</summary>
public sealed record Person(Id<Person> Id, string Name);
