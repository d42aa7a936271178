<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Reader;
use NineTally\Core\NineTallyException;
use NineTally\Core\Report\FindingFiles;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\SilentProgress;
use NineTally\Core\Tally\SliceOfFindings;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Totals\DeliveredColumns;
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
    /** So that those of one side that hold little are no wait for those that hold much. */
    private const SLICES_OF_WORKER = 2;

    public const ALL_AGREED = 0;

    public const DIFFERENCES = 1;

    public const NOT_USABLE = 2;

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
                'source-records',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'Records of another dataset that the plan wants values to have, as the old system has them: name=file. The same '.
                    'name again adds a part',
            )
            ->addOption(
                'target-records',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'The same as the new system has them',
            )
            ->addOption(
                'from',
                null,
                InputOption::VALUE_REQUIRED,
                'A folder that holds plan, parts, references, records and parameters of a tally, instead of all of these',
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
        foreach ((new Sentences)->warnings($summary->warnings()) as $warning) {
            $errors->writeln("Warning: {$warning}", OutputInterface::OUTPUT_RAW);
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
        $options = new TallyOptions($input, $workspace);
        $folder = $options->folder();
        $order = $options->order($folder);
        $plan = $folder === null ? $options->plan($order) : PlanFile::read($folder->plan);
        $parameters = [...$folder->parameters ?? [], ...$options->parameters()];
        $readers = Sides::each(static fn(Side $side): Reader => $order->prepared($side, $plan, $workspace->path, $parameters));
        [$source, $target] = $readers->map(static fn(Reader $reader): Columns => $reader->columns())->both();
        $plan->mustFit($source, $target);
        DeliveredColumns::mustHold($plan, Sides::each($order->deliveredColumns(...)));
        $order->write($workspace->path, $plan);
        $workers = $options->workers();
        $slices = new SliceWork($workspace->path);
        $crew = match (true) {
            $workers === 1 => new OneProcess($slices),
            ForkedPool::isPossible() => new ForkedPool($workers, $workspace->path),
            default => new ProcessPool($workers, [...Launcher::command(), 'work', $workspace->path]),
        };
        $progress = ! $input->getOption('quiet') && stream_isatty(STDERR) ? new TerminalProgress($errors) : null;
        $out = $input->getOption('out');
        $listsForgiven = $order->settings->listsForgiven;
        $files = is_string($out) ? FindingFiles::in($out, $plan, $source, $target, $listsForgiven) : null;
        try {
            $run = new TallyRun(
                $plan,
                $readers,
                $workspace->path,
                $progress ?? new SilentProgress,
                $order->settings,
                $crew,
                $order,
                $order,
            );
            $postings = null;
            $summary = $files !== null && $run->hasSlices()
                ? self::inSlices($run, $files, $workers === 1 ? 1 : self::SLICES_OF_WORKER * $workers, $slices)
                : null;
            if ($summary !== null) {
                $postings = $slices->postings();
            } else {
                $findings = $run->findings();
                foreach ($findings as $finding) {
                    $files?->add($finding);
                }
                $summary = $findings->getReturn();
            }
        } finally {
            $progress?->clear();
        }
        $files?->leaveOut($readers);
        $files?->post($postings ?? $run->forgivenPostings($slices->pathOfPostings()), $slices->pathOfPostings());
        $files?->finish($summary);

        return $summary;
    }

    /** @return Summary|null null where all findings have to be merged at once; nothing was written then */
    private static function inSlices(TallyRun $run, FindingFiles $files, int $ofEachSide, SliceWork $work): ?Summary
    {
        $summary = $run->inSlices($ofEachSide, $work->left(...), [SliceWork::POSTINGS]);
        if ($summary !== null) {
            $work->putTogether(SliceOfFindings::all($ofEachSide), $files);
        }

        return $summary;
    }
}
