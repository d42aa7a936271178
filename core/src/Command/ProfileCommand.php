<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\NineTallyException;
use NineTally\Core\Profile\ColumnProfile;
use NineTally\Core\Profile\SideProfile;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'profile', description: 'Says what each column of a delivery holds.')]
final class ProfileCommand extends Command
{
    protected function configure(): void
    {
        $this->addArgument(
            'file',
            InputArgument::REQUIRED,
            'Delimited text or text of fixed width, JSON, JSON Lines, XML or a workbook, packed with gzip or not',
        )->addOption('json', null, InputOption::VALUE_NONE, 'Print it as one JSON object');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $file = $input->getArgument('file');
        try {
            $reader = (new ReaderCatalogue)->open(is_string($file) ? $file : '', is_string($file) ? $file : '');
            $profile = SideProfile::of($reader);
        } catch (NineTallyException $problem) {
            $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
            $errors->writeln($problem->getMessage(), OutputInterface::OUTPUT_RAW);

            return TallyCommand::NOT_USABLE;
        }
        if ($input->getOption('json') === true) {
            $output->writeln(
                json_encode(
                    [
                        ...$profile->toArray(),
                        ...$reader instanceof DelimitedReader ? ['line_ends' => (object) $reader->lineEnds->toArray()] : [],
                    ],
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
                ),
                OutputInterface::OUTPUT_RAW,
            );

            return self::SUCCESS;
        }
        $output->writeln(
            sprintf('%s rows, %s records refused', number_format($profile->read - $profile->refused), number_format($profile->refused)),
            OutputInterface::OUTPUT_RAW,
        );
        if ($reader instanceof DelimitedReader && $reader->lineEnds->toArray() !== []) {
            $output->writeln("Records end with {$reader->lineEnds->inWords()}.", OutputInterface::OUTPUT_RAW);
        }
        foreach ($profile->columns as $column) {
            $output->writeln($this->line($column), OutputInterface::OUTPUT_RAW);
        }

        return self::SUCCESS;
    }

    private function line(ColumnProfile $column): string
    {
        $found = $column->toArray();
        $distinct = ($found['distinct_is_exact'] ? '' : 'about ').number_format($found['distinct']);

        return sprintf(
            '%s: %s, %s blank, %s distinct%s%s%s',
            $column->name,
            $found['kind'],
            number_format($found['blank']),
            $distinct,
            $found['lengths'] === null
                ? ''
                : sprintf(', %d to %d characters, from "%s" to "%s"', ...$found['lengths'], ...$found['range'] ?? ['', '']),
            $found['forms'] === [] ? '' : "; {$found['evidence']}",
            $found['invisible'] === 0 ? '' : sprintf(', %s with invisible characters', number_format($found['invisible'])),
        );
    }
}
