using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using JustRight.Contracts;

namespace JustRight.Service.Jobs.Queue;

/// <summary>The events of running jobs, for those who watch. A late watcher gets the events so far first.</summary>
public sealed class JobFeed
{
    private readonly ConcurrentDictionary<string, Topic> _topics = new(StringComparer.Ordinal);

    /// <summary>Begins a job's events.</summary>
    public void Open(string job) => _topics.TryAdd(job, new Topic());

    /// <summary>Tells the watchers.</summary>
    public void Tell(string job, JobEvent what)
    {
        if (_topics.TryGetValue(job, out var topic)) topic.Tell(what);
    }

    /// <summary>Ends a job's events with the last one.</summary>
    public void Close(string job, JobEvent last)
    {
        if (!_topics.TryRemove(job, out var topic)) return;
        topic.Tell(last);
        topic.Close();
    }

    /// <summary>
    /// The events of a job, each with its id, from its start or after the one that was seen last; empty at once when it is not
    /// running here.
    /// </summary>
    /// <param name="last">The id of the event that was seen last; null, or one that is not of this start of the job, for
    /// none.</param>
    public async IAsyncEnumerable<(string Id, JobEvent Event)> WatchAsync(
        string job, string? last, [EnumeratorCancellation] CancellationToken cancel)
    {
        if (!_topics.TryGetValue(job, out var topic)) yield break;
        await foreach (var what in topic.Watch(last).ReadAllAsync(cancel)) yield return what;
    }

    private sealed class Topic
    {
        private readonly Lock _lock = new();
        private readonly List<(string Id, JobEvent Event)> _past = [];
        private readonly List<Channel<(string Id, JobEvent Event)>> _watchers = [];

        /// <summary>A job may start again, and count its events anew: this tells them apart.</summary>
        private readonly string _start = Guid.CreateVersion7().ToString("N");
        private bool _closed;

        public void Tell(JobEvent what)
        {
            lock (_lock)
            {
                _past.Add(($"{_start}.{_past.Count + 1}", what));
                foreach (var watcher in _watchers) watcher.Writer.TryWrite(_past[^1]);
            }
        }

        public ChannelReader<(string Id, JobEvent Event)> Watch(string? last)
        {
            var channel = Channel.CreateUnbounded<(string Id, JobEvent Event)>();
            lock (_lock)
            {
                foreach (var what in _past.Skip(1 + _past.FindIndex(e => e.Id == last))) channel.Writer.TryWrite(what);
                if (_closed) channel.Writer.Complete();
                else _watchers.Add(channel);
            }

            return channel.Reader;
        }

        public void Close()
        {
            lock (_lock)
            {
                _closed = true;
                foreach (var watcher in _watchers) watcher.Writer.Complete();
            }
        }
    }
}
