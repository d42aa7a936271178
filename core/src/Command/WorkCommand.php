<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\NineTallyException;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** Does the tasks of work that it is told on standard input, one a line, and answers on standard output. Started by ProcessPool. */
#[AsCommand(name: 'work', description: 'Works for a tally of another process', hidden: true)]
final class WorkCommand extends Command
{
    protected function configure(): void
    {
        $this->addArgument('workspace', InputArgument::REQUIRED);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $workspace = $input->getArgument('workspace');
        try {
            $work = WorkspaceTasks::in(is_string($workspace) ? $workspace : '');
            while (($task = fgets(STDIN)) !== false) {
                $task = trim($task);
                $work->perform($task, static function (int $bytes, int $records) use ($output, $task): void {
                    $output->writeln("progress {$task} {$bytes} {$records}", OutputInterface::OUTPUT_RAW);
                });
                $output->writeln("done {$task}", OutputInterface::OUTPUT_RAW);
            }
        } catch (NineTallyException $problem) {
            $output->writeln('failed '.json_encode($problem->getMessage(), JSON_THROW_ON_ERROR), OutputInterface::OUTPUT_RAW);

            return TallyCommand::NOT_USABLE;
        }

        return self::SUCCESS;
    }
}
