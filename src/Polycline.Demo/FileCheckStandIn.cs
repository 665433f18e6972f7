using System.Text;
using Polycline.Web.Foundation.Files;

namespace Polycline.Demo;

/// <summary>Stands in for a school's virus scanner: it finds the harmless line that every scanner is tried with.</summary>
public sealed class FileCheckStandIn : IFileChecker
{
    // In two parts, so that no scanner minds this file.
    private static readonly byte[] Sought = Encoding.ASCII.GetBytes(
        @"X5O!P%@AP[4\PZX54(P^)7CC)7}$" + "EICAR-STANDARD-ANTIVIRUS-TEST-FILE!$H+H*"
    );

    public async Task<string?> Check(string name, Stream bytes, CancellationToken stop)
    {
        // Each look overlaps the one before, so that nothing is missed between two.
        var window = new byte[64 * 1024];
        for (var held = 0; ; )
        {
            var read = await bytes.ReadAtLeastAsync(window.AsMemory(held), 1, false, stop);
            if (window.AsSpan(0, held + read).IndexOf(Sought) >= 0)
                return $"The virus scanner found something in “{name}”, so it was not accepted. "
                    + "Ask the person who looks after your computer.";
            if (read == 0)
                return null;
            var keep = Math.Min(Sought.Length, held + read);
            window.AsSpan(held + read - keep, keep).CopyTo(window);
            held = keep;
        }
    }
}
