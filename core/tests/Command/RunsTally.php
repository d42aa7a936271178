<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use Symfony\Component\Process\Process;

/** What TallyCommandTest and ExitStatusTest have in common. */
trait RunsTally
{
    /** @param list<string> $arguments */
    private function command(array $arguments, string $input = ''): Process
    {
        $process = new Process([PHP_BINARY, dirname(__DIR__, 2).'/bin/nine-tally', 'tally', ...$arguments], input: $input);
        $process->run();

        return $process;
    }
}
