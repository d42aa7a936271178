<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\TaskExecutor;
use Symfony\Component\Process\InputStream;
use Symfony\Component\Process\Process;

/**
 * Divides the tasks of a tally's work among processes that are started for it: whoever is done gets the next task. Where this process can
 * be copied, {@see ForkedPool} does the same sooner.
 */
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
                        if (WorkerAnswer::heard($line, $onProgress, $onDone)) {
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
}
