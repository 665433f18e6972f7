using NodaTime;
using NodaTime.Text;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Mail;
using Polycline.Data.People;
using Polycline.Data.Settings;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.People;

/// <summary>What an invitation is made in.</summary>
/// <param name="Address">Where the school's pages are: scheme and host.</param>
internal sealed record Inviting(NpgsqlConnection Connection, string Address, Instant Now, DateTimeZone Zone)
{
    public static Inviting By(WorkContext work) => new(work.Connection, work.Address, work.Viewpoint.At, work.Access.Zone);
}

/// <summary>A link to set a password: shown to the office, or mailed.</summary>
internal static class Invitation
{
    /// <summary>How long it is good.</summary>
    public static readonly Duration Good = Duration.FromDays(1);

    private static readonly LocalTimePattern Clock = LocalTimePattern.CreateWithInvariantCulture("HH:mm");

    /// <exception cref="ProblemException">Mail is asked for, and none goes out here.</exception>
    public static void CheckMail(WorkContext work, bool byMail)
    {
        if (byMail && !work.HasMail)
            throw Problem.Field("byMail", "No mail goes out from here. Pass the links on yourself.");
    }

    /// <summary>Makes it; an earlier one is good no longer.</summary>
    /// <returns>Its address; null: it goes by mail, and is shown to nobody else.</returns>
    public static async Task<string?> Make(Inviting inviting, Id<Person> person, string name, string email, bool byMail)
    {
        var token = OneTimeToken.New();
        var now = inviting.Now;
        await OneTimeLinkStore.Add(inviting.Connection, OneTimeToken.Hash(token), person, now, now + Good);
        var address = $"{inviting.Address}/welcome/{token}";
        if (!byMail)
            return address;
        var school = await SettingStore.SchoolName(inviting.Connection);
        var until = Clock.Format((now + Good).InZone(inviting.Zone).TimeOfDay);
        await MailStore.Add(
            inviting.Connection,
            person,
            $"Your account at {school}",
            $"""
            Dear {name},

            You have an account at {school}. Set your password here:

              {address}

            The link works once, until {until} tomorrow. From then on, sign in with
            {email} and your password.

            If the link no longer works, ask the school office for a new one.
            """
        );
        return null;
    }
}
