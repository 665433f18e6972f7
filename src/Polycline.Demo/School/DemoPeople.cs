namespace Polycline.Demo.School;

/// <summary>The made-up people of Fenwater College.</summary>
public static class DemoPeople
{
    public const string Password = "harbour-light";

    public const string Lead = "Orla Tierney-Vance";
    public const string CoTeacher = "Tomas Reeve";
    public const string Colleague = "Hanneke Doyle-Okafor";
    public const string Office = "Fintan Marsh";
    public const string OnTrack = "Imke Osei";
    public const string HeldUp = "Davit Lindqvist";
    public const string JoinedLate = "Noor Salazar";
    public const string Leaver = "Ruben Falk";
    public const string InTwoSections = "Sunniva Adeyemi";

    /// <summary>Those whom the sign-in page offers.</summary>
    public static readonly IReadOnlyList<DemoPerson> Offered =
    [
        new(Lead, "lead teacher of Weather Watch", Email(Lead), Password),
        new(CoTeacher, "co-teacher, 9 Dogwood only", Email(CoTeacher), Password),
        new(Colleague, "colleague with a course of her own", Email(Colleague), Password),
        new(Office, "school office", Email(Office), Password),
        new(OnTrack, "student in 9 Alder, on track", Email(OnTrack), Password),
        new(HeldUp, "student in 9 Birch, held up", Email(HeldUp), Password),
        new(JoinedLate, "student in 9 Cedar, joined late", Email(JoinedLate), Password),
    ];

    private static readonly string[] FirstNames =
    [
        "Aino",
        "Bashir",
        "Chiara",
        "Dao",
        "Eilidh",
        "Femi",
        "Greta",
        "Hugo",
        "Ines",
        "Jomo",
        "Katya",
        "Liam",
        "Mei",
        "Nuno",
        "Oona",
        "Pavel",
        "Quynh",
        "Rosa",
        "Sefa",
        "Tadhg",
        "Uma",
        "Viktor",
        "Wanja",
        "Xenia",
        "Yusuf",
        "Zofia",
        "Amaru",
        "Brid",
        "Cemal",
        "Delphine",
        "Emeka",
    ];

    private static readonly string[] LastNames =
    [
        "Abara",
        "Brennan",
        "Castellan",
        "Dvorak",
        "Eriksen",
        "Farouk",
        "Gallo",
        "Haugen",
        "Ito",
        "Jensen",
        "Kowal",
        "Lund",
        "Mbeki",
        "Novak",
        "Orban",
        "Petrov",
        "Quirke",
        "Rahman",
        "Silva",
        "Tanaka",
        "Ueda",
        "Varga",
        "Walsh",
        "Yilmaz",
        "Zeman",
        "Aalto",
        "Byrne",
        "Costa",
        "Demir",
    ];

    /// <summary>The name of the <paramref name="n"/>-th further student; no two are alike for n below 899.</summary>
    public static string Student(int n) => $"{FirstNames[n % FirstNames.Length]} {LastNames[n % LastNames.Length]}";

    /// <summary>Their address. None of these addresses exists.</summary>
    public static string Email(string name) => $"{name.ToLowerInvariant().Replace(' ', '.')}@fenwater.example";
}
