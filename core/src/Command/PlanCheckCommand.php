<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\PlanProblems;
use NineTally\Core\Plan\UnusablePlan;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'plan', description: 'Checks a plan: plan check FILE')]
final class PlanCheckCommand extends Command
{
    protected function configure(): void
    {
        $this
            ->addArgument('what', InputArgument::REQUIRED, 'What to do with it: check')
            ->addArgument('file', InputArgument::REQUIRED, 'The plan as JSON');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $file = $input->getArgument('file');
        try {
            if ($input->getArgument('what') !== 'check') {
                $errors->writeln('A plan can be checked: nine-tally plan check FILE.', OutputInterface::OUTPUT_RAW);

                return TallyCommand::NOT_USABLE;
            }
            $plan = PlanFile::read(is_string($file) ? $file : '');
            // Whether its columns exist is a question to two deliveries; all else can be answered.
            $problems = (new PlanProblems($plan))->all();
            if ($problems !== []) {
                throw UnusablePlan::because($problems);
            }
        } catch (UnusablePlan $unusable) {
            foreach ($unusable->problems as $problem) {
                $errors->writeln(($problem->pointer === '' ? '' : $problem->pointer.': ').$problem->message, OutputInterface::OUTPUT_RAW);
            }

            return TallyCommand::NOT_USABLE;
        } catch (NineTallyException $problem) {
            $errors->writeln($problem->getMessage(), OutputInterface::OUTPUT_RAW);

            return TallyCommand::NOT_USABLE;
        }
        $output->writeln(
            sprintf(
                'The plan can be used: a key of %d column%s, %d column pair%s.',
                count($plan->key),
                count($plan->key) === 1 ? '' : 's',
                count($plan->columnPairs),
                count($plan->columnPairs) === 1 ? '' : 's',
            ),
        );

        return self::SUCCESS;
    }
}
