<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Report\FindingFiles;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\SequentialExecutor;
use NineTally\Core\Tally\SilentProgress;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Wording\Sentences;
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

    private const STANDARD_INPUT = '-';

    private const MOST_WORKERS = 64;

    private const LEAST_MEMORY = 16 * 1024 * 1024;

    protected function configure(): void
    {
        $this->addArgument(
            'source',
            InputArgument::OPTIONAL,
            'The old system\'s rows: delimited text, JSON, JSON Lines or a workbook, packed with gzip or zip or not; - for standard '.
                'input. label=file gives its rows a label',
        )
            ->addArgument('target', InputArgument::OPTIONAL, 'The new system\'s rows')
            ->addOption(
                'key',
                null,
                InputOption::VALUE_REQUIRED,
                'The columns that say which row is which, by source name, separated by commas',
            )
            ->addOption(
                'map',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'Pairs a source column with a target column of another name: source_column:target_column',
            )
            ->addOption('leave-out', null, InputOption::VALUE_REQUIRED, 'Columns of either side that are not compared, separated by commas')
            ->addOption('plan', null, InputOption::VALUE_REQUIRED, 'A plan as JSON, instead of --key, --map and --leave-out')
            ->addOption(
                'source-part',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'A further part of the source, stacked below the first: file, or label=file',
            )
            ->addOption('target-part', null, InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY, 'A further part of the target')
            ->addOption(
                'source-label-column',
                null,
                InputOption::VALUE_REQUIRED,
                'The name of a column that holds the part label of each source row',
            )
            ->addOption('target-label-column', null, InputOption::VALUE_REQUIRED, 'The same for the target')
            ->addOption(
                'reference',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'A reference that steps of the plan look up from: name=file. The same name again adds a part',
            )
            ->addOption(
                'from',
                null,
                InputOption::VALUE_REQUIRED,
                'A folder that holds plan, parts, references and parameters of a tally, instead of all of these',
            )
            ->addOption(
                'parameter',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'A value that conditions of the plan\'s steps ask for: name=value',
            )
            ->addOption(
                'delimiter',
                null,
                InputOption::VALUE_REQUIRED,
                'Instead of the one that is found: '.implode(', ', DelimitedFormat::DELIMITERS),
            )
            ->addOption('out', null, InputOption::VALUE_REQUIRED, 'A folder for the figures and the findings, written as CSV and JSON')
            ->addOption('json', null, InputOption::VALUE_NONE, 'Print the figures as one JSON object')
            ->addOption('list-forgiven', null, InputOption::VALUE_NONE, 'Write what rules let pass to forgiven.csv')
            ->addOption('workers', null, InputOption::VALUE_REQUIRED, 'Processes that share the work', '1')
            ->addOption('memory', null, InputOption::VALUE_REQUIRED, 'What a process should stay below', '256M')
            ->addOption('row-limit', null, InputOption::VALUE_REQUIRED, 'Longer records are refused', '16M');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $workspace = Workspace::make();
        try {
            $summary = $this->tally($input, $errors, $workspace);
        } catch (NineTallyException $problem) {
            $errors->writeln($problem->getMessage(), OutputInterface::OUTPUT_RAW | OutputInterface::VERBOSITY_QUIET);

            return self::NOT_USABLE;
        } finally {
            $workspace->remove();
        }
        $sentences = new Sentences;
        foreach ($summary->warnings() as $warning) {
            $errors->writeln("Warning: {$sentences->warning($warning)}", OutputInterface::OUTPUT_RAW);
        }
        $asJson = $input->getOption('json') === true;
        $output->writeln(
            $asJson
                ? json_encode($summary->toArray(), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)
                : SummaryText::of($summary),
            // What was asked for by --json is printed, however quiet it should be.
            OutputInterface::OUTPUT_RAW | ($asJson ? OutputInterface::VERBOSITY_QUIET : OutputInterface::VERBOSITY_NORMAL),
        );

        return $summary->allAgreed() ? self::ALL_AGREED : self::DIFFERENCES;
    }

    private function tally(InputInterface $input, OutputInterface $errors, Workspace $workspace): Summary
    {
        $folder = $this->folder($input);
        $order = $this->order($input, $workspace, $folder);
        $plan = $folder === null ? $this->plan($input, $order) : PlanFile::read($folder->plan);
        $parameters = [...$folder->parameters ?? [], ...$this->parameters($input)];
        [$source, $target] = [
            $order->prepared(Side::Source, $plan, $workspace->path, $parameters),
            $order->prepared(Side::Target, $plan, $workspace->path, $parameters),
        ];
        $plan->mustFit($source->columns(), $target->columns());
        $order->write($workspace->path, $plan);
        $workers = $this->workers($input);
        $crew = $workers === 1 ? new SequentialExecutor : new ProcessPool($workers, [...Launcher::command(), 'work', $workspace->path]);
        $progress = ! $input->getOption('quiet') && stream_isatty(STDERR) ? new TerminalProgress($errors) : null;
        $out = $input->getOption('out');
        $listsForgiven = $order->settings->listsForgiven;
        $files = is_string($out) ? FindingFiles::in($out, $plan, $source->columns(), $target->columns(), $listsForgiven) : null;
        try {
            $run = new TallyRun($plan, $source, $target, $workspace->path, $progress ?? new SilentProgress, $order->settings, $crew);
            $findings = $run->findings();
            foreach ($findings as $finding) {
                $files?->add($finding);
            }
        } finally {
            $progress?->clear();
        }
        $files?->leaveOut($source, $target);
        $files?->post($run->forgivenPostings("{$workspace->path}/forgiven.postings"), "{$workspace->path}/forgiven.postings");
        $files?->finish($findings->getReturn());

        return $findings->getReturn();
    }

    private function folder(InputInterface $input): ?TallyFolder
    {
        $folder = $input->getOption('from');
        if (! is_string($folder)) {
            return null;
        }
        $given = array_filter(['source', 'target'], static fn(string $side): bool => $input->getArgument($side) !== null);
        $given = [
            ...$given,
            ...array_filter(
                [
                    'key', 'map', 'leave-out', 'plan', 'source-part', 'target-part', 'source-label-column', 'target-label-column',
                    'reference',
                ],
                static fn(string $option): bool => ! in_array($input->getOption($option), [null, []], true),
            ),
        ];

        return $given === []
            ? TallyFolder::read($folder)
            : throw $this->problem(sprintf('The folder of --from says all that a tally is made of. Take %s out.', implode(', ', $given)));
    }

    private function order(InputInterface $input, Workspace $workspace, ?TallyFolder $folder): WorkOrder
    {
        [$source, $target] = [$this->text($input->getArgument('source')), $this->text($input->getArgument('target'))];
        if ($folder === null && ($source === '' || $target === '')) {
            throw $this->problem('Name the file of the source and the file of the target, or a folder of a tally with --from.');
        }
        if ($source === self::STANDARD_INPUT && $target === self::STANDARD_INPUT) {
            throw $this->problem('Standard input can be one side only. Give a file for the other.');
        }
        $delimiter = $input->getOption('delimiter');
        if ($delimiter !== null && ! in_array($delimiter, DelimitedFormat::DELIMITERS, true)) {
            throw $this->problem(sprintf('--delimiter is one of %s.', implode(', ', DelimitedFormat::DELIMITERS)));
        }
        $listsForgiven = $input->getOption('list-forgiven') === true;
        if ($listsForgiven && ! is_string($input->getOption('out'))) {
            throw $this->problem('--list-forgiven writes to the folder of --out. Name one.');
        }

        return new WorkOrder(
            $folder->source ?? $this->side($input, 'source', $source, $workspace),
            $folder->target ?? $this->side($input, 'target', $target, $workspace),
            $folder->references ?? $this->references($input),
            is_string($delimiter) ? $delimiter : null,
            ByteSize::read($this->text($input->getOption('row-limit')), 'row-limit', 1),
            new TallySettings(
                ByteSize::read($this->text($input->getOption('memory')), 'memory', self::LEAST_MEMORY),
                listsForgiven: $listsForgiven,
            ),
        );
    }

    private function side(InputInterface $input, string $side, string $first, Workspace $workspace): SideOption
    {
        /** @var list<string> $more */
        $more = $input->getOption("{$side}-part");
        $label = $input->getOption("{$side}-label-column");
        $part =
            $first === self::STANDARD_INPUT
                ? new PartOption($this->path($first, $workspace), 'standard input', 'standard input')
                : PartOption::read($first);

        return new SideOption([$part, ...array_map(PartOption::read(...), $more)], is_string($label) ? $label : null);
    }

    /** @return array<string, SideOption> by name */
    private function references(InputInterface $input): array
    {
        $parts = [];
        /** @var list<string> $given */
        $given = $input->getOption('reference');
        foreach ($given as $reference) {
            [$name, $path] = [...explode('=', $reference, 2), ''];
            if ($name === '' || $path === '') {
                throw $this->problem(sprintf('--reference=%s names no file. Write --reference=name=file.', $reference));
            }
            $parts[$name][] = PartOption::read($path);
        }

        return array_map(static fn(array $ofName): SideOption => new SideOption($ofName), $parts);
    }

    /** Standard input is kept first: it is read more than once, and by more than one process. */
    private function path(string $argument, Workspace $workspace): string
    {
        if ($argument !== self::STANDARD_INPUT) {
            return $argument;
        }
        $path = "{$workspace->path}/standard-input";
        if (@stream_copy_to_stream(STDIN, fopen($path, 'wb') ?: throw UnreadableFile::cannotBeOpened('standard input')) === false) {
            throw UnreadableFile::cannotBeOpened('standard input');
        }

        return $path;
    }

    private function plan(InputInterface $input, WorkOrder $order): Plan
    {
        $path = $input->getOption('plan');
        if (! is_string($path)) {
            return Plan::pairing(
                $order->columns(Side::Source),
                $order->columns(Side::Target),
                $this->names($input, 'key'),
                $this->map($input),
                $this->names($input, 'leave-out'),
            );
        }
        if ($input->getOption('key') !== null || $input->getOption('map') !== [] || $input->getOption('leave-out') !== null) {
            throw $this->problem('A plan says key, pairs and what is left out. Give either --plan, or --key, --map and --leave-out.');
        }

        return PlanFile::read($path);
    }

    private function workers(InputInterface $input): int
    {
        $workers = $this->text($input->getOption('workers'));

        return ctype_digit($workers) && (int) $workers >= 1 && (int) $workers <= self::MOST_WORKERS
            ? (int) $workers
            : throw $this->problem(sprintf('--workers=%s is not a number of processes from 1 to %d.', $workers, self::MOST_WORKERS));
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
                throw $this->problem(sprintf('--map=%s is not a pair. Write --map=source_column:target_column.', $pair));
            }
            if (isset($map[$names[0]]) || in_array($names[1], $map, true)) {
                throw $this->problem(
                    sprintf('--map=%s names a column that another --map has taken. Each column stands in one pair.', $pair),
                );
            }
            $map[$names[0]] = $names[1];
        }

        return $map;
    }

    /** @return array<string, string> by name */
    private function parameters(InputInterface $input): array
    {
        $parameters = [];
        /** @var list<string> $given */
        $given = $input->getOption('parameter');
        foreach ($given as $parameter) {
            [$name, $value] = [...explode('=', $parameter, 2), null];
            $parameters[$name] =
                $value ?? throw $this->problem(sprintf('--parameter=%s has no value. Write --parameter=name=value.', $parameter));
        }

        return $parameters;
    }

    private function problem(string $message): UnusablePlan
    {
        return UnusablePlan::because([new Problem('', $message)]);
    }

    private function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }
}
