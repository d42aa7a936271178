<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

/**
 * Starts PHP so that the engine runs at full speed: the tracing JIT takes a third off, and on PHP 8.2 it is only there when
 * its buffer is asked for at process start.
 */
final readonly class Launcher
{
    /** Without the last three PHP gives up on new loops, and on new ways out of them, while many still run. */
    private const JIT = [
        '-d', 'opcache.enable_cli=1', '-d', 'opcache.jit=tracing', '-d', 'opcache.jit_buffer_size=64M', '-d',
        'opcache.jit_max_root_traces=16384', '-d', 'opcache.jit_max_side_traces=16384', '-d', 'opcache.jit_max_exit_counters=131072',
    ];

    private const STARTED = 'NINE_TALLY_STARTED';

    /** @return list<string> the command that starts this program so */
    public static function command(): array
    {
        return [PHP_BINARY, ...self::JIT, dirname(__DIR__, 2).'/bin/nine-tally'];
    }

    public static function isAtFullSpeed(): bool
    {
        $status = function_exists('opcache_get_status') ? @opcache_get_status(false) : false;

        $jit = is_array($status) ? $status['jit'] ?? null : null;

        return is_array($jit) && ($jit['on'] ?? false) === true;
    }

    /**
     * Replaces this process by one at full speed, where that can be done; it is tried once.
     *
     * @param  list<string>  $arguments
     */
    public static function restart(array $arguments): void
    {
        if (
            self::isAtFullSpeed() ||
            getenv(self::STARTED) !== false ||
            ! function_exists('pcntl_exec') ||
            ! extension_loaded('Zend OPcache')
        ) {
            return;
        }
        putenv(self::STARTED.'=1');
        [$php, $program] = [self::command()[0], array_slice(self::command(), 1)];
        @pcntl_exec($php, [...$program, ...$arguments], getenv());
    }
}
