namespace Polycline.Web.Foundation.Files;

/// <summary>Checks every file before anybody can use it. A school's virus scanner is called from here.</summary>
public interface IFileChecker
{
    /// <summary>Why a file is rejected, in words for the person who sent it; null if it is accepted.</summary>
    Task<string?> Check(string name, Stream bytes, CancellationToken stop);
}

/// <summary>For a school without a virus scanner.</summary>
public sealed class NoFileChecker : IFileChecker
{
    public Task<string?> Check(string name, Stream bytes, CancellationToken stop) => Task.FromResult<string?>(null);
}

/// <summary>What every file that is sent has to satisfy.</summary>
public sealed record FileRules(FileLimits Limits, IFileChecker Checker);
