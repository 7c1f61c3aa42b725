using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using JustRight.Contracts;

namespace JustRight.Service.Jobs;

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

    /// <summary>The events of a job from its start; empty at once when it is not running here.</summary>
    public async IAsyncEnumerable<JobEvent> WatchAsync(string job, [EnumeratorCancellation] CancellationToken cancel)
    {
        if (!_topics.TryGetValue(job, out var topic)) yield break;
        await foreach (var what in topic.Watch().ReadAllAsync(cancel)) yield return what;
    }

    private sealed class Topic
    {
        private readonly Lock _lock = new();
        private readonly List<JobEvent> _past = [];
        private readonly List<Channel<JobEvent>> _watchers = [];
        private bool _closed;

        public void Tell(JobEvent what)
        {
            lock (_lock)
            {
                _past.Add(what);
                foreach (var watcher in _watchers) watcher.Writer.TryWrite(what);
            }
        }

        public ChannelReader<JobEvent> Watch()
        {
            var channel = Channel.CreateUnbounded<JobEvent>();
            lock (_lock)
            {
                foreach (var what in _past) channel.Writer.TryWrite(what);
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
