using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Editions;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Editions;

public sealed record TakeBackRollOverRequest;

/// <param name="Edition">The edition that is current again.</param>
public sealed record TakenBackAnswer(bool Applied, Id<Edition> Edition) : IAnswer<TakenBackAnswer>
{
    public TakenBackAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Takes a roll-over back, as long as no student has worked in the new edition: nothing of it is left.</summary>
public sealed class TakeBackRollOver : IWorkCommand<TakeBackRollOverRequest, TakenBackAnswer>
{
    public static string Name => "take-back-roll-over";

    public static May May => May.Lead;

    public static WorkPlace Place => WorkPlace.Edition;

    public static async Task<TakenBackAnswer> Do(WorkContext work, TakeBackRollOverRequest request)
    {
        try
        {
            var origin = await RolloverStore.TakeBack(work.Connection, work.Edition);
            await work.Audit("roll-over-taken-back", new { edition = work.Edition.Value, current = origin.Value });
            return new(true, origin);
        }
        catch (PostgresException fault) when (fault.SqlState is "PC002")
        {
            throw Problem.CannotUndo("This edition was not rolled over from another.", "Nothing was changed.");
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo("Students have worked in this edition.", "Nothing was changed: their work stays where it is.");
        }
    }
}
