namespace Polycline.Formats;

/// <summary>
/// A stream that is only ever written to asynchronously: what its writer writes at once, as zip files do at the end of each entry, waits
/// in memory for the next time that it may.
/// </summary>
internal sealed class DeferredWrites(Stream to) : Stream
{
    private readonly MemoryStream waiting = new();

    public override bool CanRead => false;

    public override bool CanSeek => false;

    public override bool CanWrite => true;

    public override long Length => throw new NotSupportedException("It is only written to.");

    public override long Position
    {
        get => throw new NotSupportedException("It is only written to.");
        set => throw new NotSupportedException("It is only written to.");
    }

    public override void Write(byte[] buffer, int offset, int count) => waiting.Write(buffer, offset, count);

    public override async ValueTask WriteAsync(ReadOnlyMemory<byte> buffer, CancellationToken cancellationToken = default)
    {
        await FlushAsync(cancellationToken);
        await to.WriteAsync(buffer, cancellationToken);
    }

    public override Task WriteAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        WriteAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override async Task FlushAsync(CancellationToken cancellationToken)
    {
        await to.WriteAsync(waiting.GetBuffer().AsMemory(0, (int)waiting.Length), cancellationToken);
        waiting.SetLength(0);
    }

    public override void Flush() { }

    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException("It is only written to.");

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException("It is only written to.");

    public override void SetLength(long value) => throw new NotSupportedException("It is only written to.");
}
