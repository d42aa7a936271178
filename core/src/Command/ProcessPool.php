<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\TaskExecutor;
use Symfony\Component\Process\InputStream;
use Symfony\Component\Process\Process;

/** Divides the tasks of a tally's work among processes on this machine: whoever is done gets the next task. */
final readonly class ProcessPool implements TaskExecutor
{
    /** The console tells its children through the environment to be as quiet as it is; these must answer. */
    private const SPEAKING = ['SHELL_VERBOSITY' => '0'];

    private const PAUSE_MICROSECONDS = 5_000;

    /** @param list<string> $command that starts a worker */
    public function __construct(private int $workers, private array $command) {}

    public function perform(TallyWork $work, array $tasks, callable $onProgress, callable $onDone): void
    {
        $workers = [];
        try {
            foreach (array_slice($tasks, 0, $this->workers) as $ignored) {
                $input = new InputStream;
                $process = new Process($this->command, env: self::SPEAKING, input: $input, timeout: null);
                $process->start();
                $input->write(array_shift($tasks)."\n");
                $workers[] = ['process' => $process, 'input' => $input, 'rest' => '', 'isBusy' => true];
            }
            while (array_filter(array_column($workers, 'isBusy')) !== []) {
                foreach ($workers as $number => $worker) {
                    // Asked first: what a worker says last is still to be read when it has ended.
                    $hasEnded = ! $worker['process']->isRunning();
                    $lines = explode("\n", $worker['rest'].$worker['process']->getIncrementalOutput());
                    $workers[$number]['rest'] = (string) array_pop($lines);
                    foreach ($lines as $line) {
                        if ($this->hear($line, $onProgress, $onDone)) {
                            $next = array_shift($tasks);
                            $next === null ? $worker['input']->close() : $worker['input']->write($next."\n");
                            $workers[$number]['isBusy'] = $next !== null;
                        }
                    }
                    if ($workers[$number]['isBusy'] && $hasEnded) {
                        throw WorkerFailure::died($worker['process']->getErrorOutput());
                    }
                }
                usleep(self::PAUSE_MICROSECONDS);
            }
        } finally {
            foreach ($workers as $worker) {
                $worker['input']->close();
                $worker['process']->stop(1);
            }
        }
    }

    /**
     * @param  callable(string, int, int): void  $onProgress
     * @param  callable(string): void  $onDone
     * @return bool whether the worker is done with its task
     */
    private function hear(string $line, callable $onProgress, callable $onDone): bool
    {
        [$word, $what] = [...explode(' ', $line, 2), ''];
        if ($word === 'failed') {
            $message = json_decode($what);
            throw WorkerFailure::saying(is_string($message) ? $message : $what);
        }
        if ($word === 'progress') {
            [$task, $bytes, $records] = explode(' ', $what);
            $onProgress($task, (int) $bytes, (int) $records);
        } elseif ($word === 'done') {
            $onDone($what);
        }

        return $word === 'done';
    }
}
