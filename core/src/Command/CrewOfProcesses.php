<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Tally\Crew;
use NineTally\Core\Tally\TallyWork;
use Symfony\Component\Process\InputStream;
use Symfony\Component\Process\Process;

/** Divides the pieces of a tally's work among processes on this machine: whoever is done gets the next piece. */
final readonly class CrewOfProcesses implements Crew
{
    /** The console tells its children through the environment to be as quiet as it is; these must answer. */
    private const SPEAKING = ['SHELL_VERBOSITY' => '0'];

    private const PAUSE_MICROSECONDS = 5_000;

    /** @param list<string> $command that starts a worker */
    public function __construct(private int $workers, private array $command) {}

    public function perform(TallyWork $work, array $pieces, callable $onProgress, callable $onDone): void
    {
        $crew = [];
        try {
            foreach (array_slice($pieces, 0, $this->workers) as $ignored) {
                $input = new InputStream;
                $process = new Process($this->command, env: self::SPEAKING, input: $input, timeout: null);
                $process->start();
                $input->write(array_shift($pieces)."\n");
                $crew[] = ['process' => $process, 'input' => $input, 'rest' => '', 'isBusy' => true];
            }
            while (array_filter(array_column($crew, 'isBusy')) !== []) {
                foreach ($crew as $number => $worker) {
                    $lines = explode("\n", $worker['rest'].$worker['process']->getIncrementalOutput());
                    $crew[$number]['rest'] = (string) array_pop($lines);
                    foreach ($lines as $line) {
                        if ($this->hear($line, $onProgress, $onDone)) {
                            $next = array_shift($pieces);
                            $next === null ? $worker['input']->close() : $worker['input']->write($next."\n");
                            $crew[$number]['isBusy'] = $next !== null;
                        }
                    }
                    if ($crew[$number]['isBusy'] && ! $worker['process']->isRunning() && $worker['process']->getIncrementalOutput() === '') {
                        throw WorkerFailure::died($worker['process']->getErrorOutput());
                    }
                }
                usleep(self::PAUSE_MICROSECONDS);
            }
        } finally {
            foreach ($crew as $worker) {
                $worker['input']->close();
                $worker['process']->stop(1);
            }
        }
    }

    /**
     * @param  callable(string, int, int): void  $onProgress
     * @param  callable(string): void  $onDone
     * @return bool whether the worker is done with its piece
     */
    private function hear(string $line, callable $onProgress, callable $onDone): bool
    {
        [$word, $what] = [...explode(' ', $line, 2), ''];
        if ($word === 'failed') {
            $message = json_decode($what);
            throw WorkerFailure::saying(is_string($message) ? $message : $what);
        }
        if ($word === 'progress') {
            [$piece, $bytes, $records] = explode(' ', $what);
            $onProgress($piece, (int) $bytes, (int) $records);
        } elseif ($word === 'done') {
            $onDone($what);
        }

        return $word === 'done';
    }
}
