namespace JustRight.Tests.ServiceUnderTest;

/// <summary>
/// The machine's clock, which goes on by itself and can be moved besides: time passes, and what waits for it comes due at once;
/// or somebody sets the clock on the wall, which hastens nothing that waits.
/// </summary>
public sealed class MovableClock : TimeProvider
{
    private readonly Lock _lock = new();
    private readonly HashSet<Waiter> _waiters = [];
    private TimeSpan _passed;
    private TimeSpan _set;

    /// <inheritdoc/>
    public override DateTimeOffset GetUtcNow()
    {
        lock (_lock) return System.GetUtcNow() + _passed + _set;
    }

    /// <inheritdoc/>
    public override long GetTimestamp()
    {
        lock (_lock) return System.GetTimestamp() + (long)(_passed.TotalSeconds * TimestampFrequency);
    }

    /// <summary>Lets time pass until a moment, which is not before now.</summary>
    public void PassUntil(DateTimeOffset moment) => Pass(moment - GetUtcNow());

    /// <summary>Lets time pass.</summary>
    public void Pass(TimeSpan time)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(time, TimeSpan.Zero);
        lock (_lock)
        {
            _passed += time;
            foreach (var waiter in _waiters) waiter.Arm();
        }
    }

    /// <summary>Sets the clock on the wall, forward or back, as somebody does, or a time server.</summary>
    public void Set(DateTimeOffset moment)
    {
        lock (_lock) _set += moment - GetUtcNow();
    }

    /// <inheritdoc/>
    public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period)
    {
        var waiter = new Waiter(this, callback, state);
        lock (_lock) _waiters.Add(waiter);
        waiter.Change(dueTime, period);
        return waiter;
    }

    /// <summary>A timer that is due at a moment of the clock's own time, which no setting of the wall's moves.</summary>
    private sealed class Waiter : ITimer
    {
        private readonly MovableClock _clock;
        private readonly ITimer _timer;
        private long? _due;
        private TimeSpan _period;

        public Waiter(MovableClock clock, TimerCallback callback, object? state)
        {
            _clock = clock;
            _timer = System.CreateTimer(
                _ =>
                {
                    lock (clock._lock)
                    {
                        if (_due is not { } due || due > clock.GetTimestamp())
                        {
                            Arm();
                            return;
                        }

                        _due = _period == Timeout.InfiniteTimeSpan ? null : After(_period);
                        Arm();
                    }

                    callback(state);
                },
                null, Timeout.InfiniteTimeSpan, Timeout.InfiniteTimeSpan);
        }

        public bool Change(TimeSpan dueTime, TimeSpan period)
        {
            lock (_clock._lock)
            {
                _due = dueTime == Timeout.InfiniteTimeSpan ? null : After(dueTime);
                _period = period <= TimeSpan.Zero ? Timeout.InfiniteTimeSpan : period;
                Arm();
                return true;
            }
        }

        /// <summary>Sets the machine's timer to what is left, a day at most: it takes no longer time than some weeks.</summary>
        public void Arm()
        {
            if (_due is not { } due)
            {
                _timer.Change(Timeout.InfiniteTimeSpan, Timeout.InfiniteTimeSpan);
                return;
            }

            var left = TimeSpan.FromSeconds((due - _clock.GetTimestamp()) / (double)_clock.TimestampFrequency);
            _timer.Change(TimeSpan.FromTicks(Math.Clamp(left.Ticks, 0, TimeSpan.TicksPerDay)), Timeout.InfiniteTimeSpan);
        }

        public void Dispose()
        {
            lock (_clock._lock) _clock._waiters.Remove(this);
            _timer.Dispose();
        }

        public ValueTask DisposeAsync()
        {
            Dispose();
            return ValueTask.CompletedTask;
        }

        private long After(TimeSpan time) => _clock.GetTimestamp() + (long)(time.TotalSeconds * _clock.TimestampFrequency);
    }
}
