using System.Net;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A school for each test, and the lead of Weather Watch at a page of it: what tests that change things stand on.</summary>
public abstract class LeadOfASchool : IAsyncLifetime
{
    protected School School { get; private set; } = null!;

    protected Caller Lead { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        School = await School.Open();
        Lead = await School.As(DemoPeople.Lead);
        await Prepare();
    }

    /// <summary>What else a class needs before each of its tests.</summary>
    protected virtual Task Prepare() => Task.CompletedTask;

    public virtual async ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        Lead.Dispose();
        await School.DisposeAsync();
    }

    /// <summary>The address of something of Weather Watch.</summary>
    protected string Route(string rest) => $"/api/editions/{School.WeatherWatch}/{rest}";

    /// <summary>Does a command, which comes through.</summary>
    protected async Task<Reply> Post(string command, object body)
    {
        var reply = await Lead.Post(Route(command), body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply;
    }
}

/// <summary>One school for the class, and the lead of Weather Watch: what tests that leave it as they found it stand on.</summary>
public abstract class LeadOfASharedSchool(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    protected School School { get; private set; } = null!;

    protected Caller Lead { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        School = await shared.Open();
        Lead = await School.As(DemoPeople.Lead);
        await Prepare();
    }

    /// <summary>What else a class needs before each of its tests.</summary>
    protected virtual Task Prepare() => Task.CompletedTask;

    public virtual ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        Lead.Dispose();
        return ValueTask.CompletedTask;
    }
}
