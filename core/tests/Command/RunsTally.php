<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use Symfony\Component\Process\Process;

/** What TallyCommandTest and ExitStatusTest have in common. */
trait RunsTally
{
    /**
     * @param  list<string>  $arguments
     * @param  array<string, string>  $environment
     */
    private function command(array $arguments, string $input = '', array $environment = []): Process
    {
        $program = dirname(__DIR__, 2).'/bin/nine-tally';
        $process = new Process([PHP_BINARY, $program, 'tally', ...$arguments], env: $environment, input: $input);
        $process->run();

        return $process;
    }
}
