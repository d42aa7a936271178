<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\DelimitedFormat;
use NineTally\Core\Intake\DelimitedReader;
use NineTally\Core\Intake\FormatDetection;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Report\FindingFiles;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'tally', description: 'Compares two deliveries and accounts for every row.')]
final class TallyCommand extends Command
{
    public const ALL_AGREED = 0;

    public const DIFFERENCES = 1;

    public const NOT_USABLE = 2;

    protected function configure(): void
    {
        $this
            ->addArgument('source', InputArgument::REQUIRED, 'Delimited text (UTF-8) from the old system')
            ->addArgument('target', InputArgument::REQUIRED, 'Delimited text (UTF-8) from the new system')
            ->addOption('key', null, InputOption::VALUE_REQUIRED, 'The columns that say which row is which, by source name, separated by commas')
            ->addOption('map', null, InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY, 'Pairs a source column with a target column of another name: source_column:target_column')
            ->addOption('leave-out', null, InputOption::VALUE_REQUIRED, 'Columns of either side that are not compared, separated by commas')
            ->addOption('delimiter', null, InputOption::VALUE_REQUIRED, 'Instead of the one that is found: '.implode(', ', DelimitedFormat::DELIMITERS))
            ->addOption('out', null, InputOption::VALUE_REQUIRED, 'A folder for the figures and the findings, written as CSV and JSON')
            ->addOption('json', null, InputOption::VALUE_NONE, 'Print the figures as one JSON object');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        try {
            $summary = $this->tally($input);
        } catch (NineTallyException $problem) {
            $errors->writeln($problem->getMessage(), OutputInterface::OUTPUT_RAW);

            return self::NOT_USABLE;
        }
        foreach ($summary->warnings() as $warning) {
            $errors->writeln("Warning: {$warning}", OutputInterface::OUTPUT_RAW);
        }
        $output->writeln($input->getOption('json') === true
            ? json_encode($summary->toArray(), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)
            : SummaryText::of($summary), OutputInterface::OUTPUT_RAW);

        return $summary->allAgreed() ? self::ALL_AGREED : self::DIFFERENCES;
    }

    private function tally(InputInterface $input): Summary
    {
        $source = $this->reader($input, 'source');
        $target = $this->reader($input, 'target');
        $plan = Plan::pairing($source->columns, $target->columns, $this->names($input, 'key'), $this->map($input), $this->names($input, 'leave-out'));
        $workspace = Workspace::make();
        try {
            $run = new TallyRun($plan, $source, $target, ['source' => $this->size($input, 'source'), 'target' => $this->size($input, 'target')], $workspace->path);
            $folder = $input->getOption('out');
            $files = is_string($folder) ? FindingFiles::in($folder, $plan, $source->columns, $target->columns) : null;
            $findings = $run->findings();
            foreach ($findings as $finding) {
                $files?->add($finding);
            }
            $files?->finish($findings->getReturn());

            return $findings->getReturn();
        } finally {
            $workspace->remove();
        }
    }

    private function reader(InputInterface $input, string $side): DelimitedReader
    {
        $path = $this->text($input->getArgument($side));
        $format = (new FormatDetection)->find($path, $path)->format;
        $delimiter = $input->getOption('delimiter');
        if ($delimiter !== null && ! in_array($delimiter, DelimitedFormat::DELIMITERS, true)) {
            throw $this->problem('/delimiter', sprintf('--delimiter is one of %s.', implode(', ', DelimitedFormat::DELIMITERS)));
        }

        return new DelimitedReader($path, $path, $format->with(delimiterName: is_string($delimiter) ? $delimiter : null));
    }

    /** @return list<string> one RFC 4180 record, so that a name may hold a comma */
    private function names(InputInterface $input, string $option): array
    {
        $value = $this->text($input->getOption($option));

        return $value === '' ? [] : array_map(static fn(?string $name): string => (string) $name, str_getcsv($value, ',', '"', ''));
    }

    /** @return array<string, string> */
    private function map(InputInterface $input): array
    {
        $map = [];
        /** @var list<string> $pairs */
        $pairs = $input->getOption('map');
        foreach ($pairs as $pair) {
            $names = explode(':', $pair);
            if (count($names) !== 2 || $names[0] === '' || $names[1] === '') {
                throw $this->problem('/map', sprintf('--map=%s is not a pair. Write --map=source_column:target_column.', $pair));
            }
            if (isset($map[$names[0]]) || in_array($names[1], $map, true)) {
                throw $this->problem('/map', sprintf('--map=%s names a column that another --map has taken. Each column stands in one pair.', $pair));
            }
            $map[$names[0]] = $names[1];
        }

        return $map;
    }

    private function problem(string $pointer, string $message): UnusablePlan
    {
        return UnusablePlan::because([new Problem($pointer, $message)]);
    }

    private function size(InputInterface $input, string $side): int
    {
        return (int) filesize($this->text($input->getArgument($side)));
    }

    private function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }
}
