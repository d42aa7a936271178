<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

/**
 * Starts PHP so that the engine runs at full speed: the tracing JIT takes a third off, and on PHP 8.2 it is only there when
 * its buffer is asked for at process start. Nor does PHP follow more than 1,024 loops, and as many ways out of them, unless it is told to;
 * the application has more. What is asked for stands in the first line of the program.
 */
final readonly class Launcher
{
    private const STARTED = 'NINE_TALLY_STARTED';

    /** @return list<string> the command that starts this program so */
    public static function command(): array
    {
        $program = dirname(__DIR__, 2).'/bin/nine-tally';

        return [PHP_BINARY, ...self::settings($program), $program];
    }

    /** @return list<string> what the first line of the program asks PHP for */
    private static function settings(string $program): array
    {
        [, $settings] = explode(
            ' php ',
            trim((string) fgets(fopen($program, 'rb') ?: throw new \LogicException('This program is gone.'))),
            2,
        );

        return explode(' ', $settings);
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
