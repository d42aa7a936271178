<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\NineTallyException;
use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\TaskExecutor;

/**
 * Divides the tasks of a tally's work among copies of this process: what it has compiled and traced is there at once, where a process that
 * is started anew does all of that again, for each phase of the work. A worker opens everything it reads by itself and ends without tidying
 * up, so that nothing of this process is closed or removed by it. Never where a database or a web server is at the other end of anything.
 */
final readonly class ForkedPool implements TaskExecutor
{
    /** Set in a copy: what it has to say it says to the first process, and to no terminal. */
    public const COPY = 'NINE_TALLY_COPY';

    private const LONGEST_LINE = 1_048_576;

    private const PAUSE_MICROSECONDS = 5_000;

    public function __construct(private int $workers, private string $workspace) {}

    public static function isPossible(): bool
    {
        return PHP_SAPI === 'cli' &&
            function_exists('pcntl_fork') &&
            function_exists('posix_kill') &&
            function_exists('stream_socket_pair');
    }

    public function perform(TallyWork $work, array $tasks, callable $onProgress, callable $onDone): void
    {
        $workers = [];
        try {
            foreach (array_slice($tasks, 0, $this->workers) as $ignored) {
                [$number, $socket] = $this->worker(array_column($workers, 'socket'));
                fwrite($socket, array_shift($tasks)."\n");
                $workers[$number] = ['socket' => $socket, 'rest' => ''];
            }
            while ($workers !== []) {
                $ready = array_column($workers, 'socket');
                $none = null;
                // A signal, such as going on after a stop, is no answer: they are waited for again.
                if (@stream_select($ready, $none, $none, null) === false) {
                    usleep(self::PAUSE_MICROSECONDS);

                    continue;
                }
                foreach ($workers as $number => ['socket' => $socket, 'rest' => $rest]) {
                    if (! in_array($socket, $ready, true)) {
                        continue;
                    }
                    $said = (string) fread($socket, self::LONGEST_LINE);
                    if ($said === '') {
                        throw WorkerFailure::died('');
                    }
                    $lines = explode("\n", $rest.$said);
                    $workers[$number]['rest'] = array_pop($lines);
                    foreach ($lines as $line) {
                        if (WorkerAnswer::heard($line, $onProgress, $onDone)) {
                            $next = array_shift($tasks);
                            if ($next === null) {
                                $this->end($number, $socket);
                                unset($workers[$number]);
                            } else {
                                fwrite($socket, "{$next}\n");
                            }
                        }
                    }
                }
            }
        } finally {
            foreach ($workers as $number => ['socket' => $socket]) {
                posix_kill($number, SIGKILL);
                $this->end($number, $socket);
            }
        }
    }

    /**
     * @param  list<resource>  $others  sockets of the workers that are there already
     * @return array{int, resource} process and the socket to it
     */
    private function worker(array $others): array
    {
        $sockets = stream_socket_pair(STREAM_PF_UNIX, STREAM_SOCK_STREAM, STREAM_IPPROTO_IP);
        $process = $sockets === false ? -1 : pcntl_fork();
        if ($sockets === false || $process === -1) {
            throw WorkerFailure::died('');
        }
        if ($process > 0) {
            fclose($sockets[1]);

            return [$process, $sockets[0]];
        }
        array_map(fclose(...), [...$others, $sockets[0]]);
        $this->serve($sockets[1]);
    }

    /** @param resource $socket */
    private function serve($socket): never
    {
        // Whoever ends the first process ends it as it is used to; a copy only goes.
        array_map(static fn(int $signal): bool => pcntl_signal($signal, SIG_DFL), [SIGINT, SIGTERM, SIGHUP]);
        putenv(self::COPY.'=1');
        $say = static function (string $line) use ($socket): void {
            fwrite($socket, "{$line}\n");
        };
        // What runs out of memory cannot be caught.
        register_shutdown_function(static function () use ($say): void {
            $say('died '.json_encode(error_get_last()['message'] ?? '', JSON_INVALID_UTF8_SUBSTITUTE));
        });
        try {
            $work = WorkspaceTasks::in($this->workspace);
            while (($task = fgets($socket)) !== false) {
                $task = trim($task);
                $work->perform($task, static fn(int $bytes, int $records) => $say("progress {$task} {$bytes} {$records}"));
                $say("done {$task}");
            }
        } catch (NineTallyException $problem) {
            $say('failed '.json_encode($problem->getMessage(), JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE));
        } catch (\Throwable $unforeseen) {
            $say('died '.json_encode($unforeseen->getMessage(), JSON_INVALID_UTF8_SUBSTITUTE));
        }
        posix_kill((int) getmypid(), SIGKILL);
        exit;
    }

    /** @param resource $socket */
    private function end(int $process, $socket): void
    {
        fclose($socket);
        pcntl_waitpid($process, $status);
    }
}
