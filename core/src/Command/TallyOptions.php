<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\Workspace;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand(name: 'tally', description: 'Compares two deliveries and accounts for every row.')]
/** What the arguments and options of a tally mean, and what is wrong with them. */
final readonly class TallyOptions
{
    private const STANDARD_INPUT = '-';

    private const MOST_WORKERS = 64;

    private const LEAST_MEMORY = 16 * 1024 * 1024;

    public function __construct(private InputInterface $input, private Workspace $workspace) {}

    public function folder(): ?TallyFolder
    {
        $folder = $this->input->getOption('from');
        if (! is_string($folder)) {
            return null;
        }
        $given = array_filter(['source', 'target'], fn(string $side): bool => $this->input->getArgument($side) !== null);
        $given = [
            ...$given,
            ...array_filter(
                [
                    'key', 'map', 'leave-out', 'plan', 'source-part', 'target-part', 'source-label-column', 'target-label-column',
                    'reference', 'source-records', 'target-records',
                ],
                fn(string $option): bool => ! in_array($this->input->getOption($option), [null, []], true),
            ),
        ];

        return $given === []
            ? TallyFolder::read($folder)
            : throw $this->problem(sprintf('The folder of --from says all that a tally is made of. Take %s out.', implode(', ', $given)));
    }

    public function order(?TallyFolder $folder): WorkOrder
    {
        [$source, $target] = [$this->text($this->input->getArgument('source')), $this->text($this->input->getArgument('target'))];
        if ($folder === null && ($source === '' || $target === '')) {
            throw $this->problem('Name the file of the source and the file of the target, or a folder of a tally with --from.');
        }
        if ($source === self::STANDARD_INPUT && $target === self::STANDARD_INPUT) {
            throw $this->problem('Standard input can be one side only. Give a file for the other.');
        }
        $delimiter = $this->input->getOption('delimiter');
        if ($delimiter !== null && ! (is_string($delimiter) && DelimitedFormat::delimiterNamed($delimiter) !== null)) {
            throw $this->problem(sprintf('--delimiter is %s, or another sign of one byte.', implode(', ', DelimitedFormat::DELIMITERS)));
        }
        $listsForgiven = $this->input->getOption('list-forgiven') === true;
        if ($listsForgiven && ! is_string($this->input->getOption('out'))) {
            throw $this->problem('--list-forgiven writes to the folder of --out. Name one.');
        }

        return new WorkOrder(
            $folder->source ?? $this->side('source', $source),
            $folder->target ?? $this->side('target', $target),
            $folder->references ?? array_map(static fn(array $parts): SideOption => new SideOption($parts), $this->named('reference')),
            is_string($delimiter) ? $delimiter : null,
            ByteSize::read($this->text($this->input->getOption('row-limit')), 'row-limit', 1),
            new TallySettings(
                ByteSize::read($this->text($this->input->getOption('memory')), 'memory', self::LEAST_MEMORY),
                listsForgiven: $listsForgiven,
            ),
            $folder->records ?? $this->records(),
        );
    }

    private function side(string $side, string $first): SideOption
    {
        /** @var list<string> $more */
        $more = $this->input->getOption("{$side}-part");
        $label = $this->input->getOption("{$side}-label-column");
        $part =
            $first === self::STANDARD_INPUT
                ? new PartOption($this->path($first), 'standard input', 'standard input')
                : PartOption::read($first);

        return new SideOption([$part, ...array_map(PartOption::read(...), $more)], is_string($label) ? $label : null);
    }

    /** @return array<string, array<string, SideOption>> by name and side */
    private function records(): array
    {
        $records = [];
        foreach (Side::cases() as $side) {
            foreach ($this->named("{$side->value}-records") as $name => $parts) {
                $records[$name][$side->value] = new SideOption($parts);
            }
        }

        return $records;
    }

    /** @return array<string, non-empty-list<PartOption>> by the name that was given to them */
    private function named(string $option): array
    {
        $parts = [];
        /** @var list<string> $given */
        $given = $this->input->getOption($option);
        foreach ($given as $one) {
            [$name, $path] = [...explode('=', $one, 2), ''];
            if ($name === '' || $path === '') {
                throw $this->problem(sprintf('--%1$s=%2$s names no file. Write --%1$s=name=file.', $option, $one));
            }
            $parts[$name][] = PartOption::read($path);
        }

        return $parts;
    }

    /** Standard input is kept first: it is read more than once, and by more than one process. */
    private function path(string $argument): string
    {
        if ($argument !== self::STANDARD_INPUT) {
            return $argument;
        }
        $path = "{$this->workspace->path}/standard-input";
        if (@stream_copy_to_stream(STDIN, fopen($path, 'wb') ?: throw UnreadableFile::cannotBeOpened('standard input')) === false) {
            throw UnreadableFile::cannotBeOpened('standard input');
        }

        return $path;
    }

    public function plan(WorkOrder $order): Plan
    {
        $path = $this->input->getOption('plan');
        if (! is_string($path)) {
            return Plan::pairing(
                $order->columns(Side::Source),
                $order->columns(Side::Target),
                $this->names('key'),
                $this->map(),
                $this->names('leave-out'),
            );
        }
        if (
            $this->input->getOption('key') !== null ||
            $this->input->getOption('map') !== [] ||
            $this->input->getOption('leave-out') !== null
        ) {
            throw $this->problem('A plan says key, pairs and what is left out. Give either --plan, or --key, --map and --leave-out.');
        }

        return PlanFile::read($path);
    }

    public function workers(): int
    {
        $workers = $this->text($this->input->getOption('workers'));

        return ctype_digit($workers) && (int) $workers >= 1 && (int) $workers <= self::MOST_WORKERS
            ? (int) $workers
            : throw $this->problem(sprintf('--workers=%s is not a number of processes from 1 to %d.', $workers, self::MOST_WORKERS));
    }

    /** @return list<string> one RFC 4180 record, so that a name may hold a comma */
    private function names(string $option): array
    {
        $value = $this->text($this->input->getOption($option));

        return $value === '' ? [] : array_map(static fn(?string $name): string => (string) $name, str_getcsv($value, ',', '"', ''));
    }

    /** @return array<string, string> */
    private function map(): array
    {
        $map = [];
        /** @var list<string> $pairs */
        $pairs = $this->input->getOption('map');
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
    public function parameters(): array
    {
        $parameters = [];
        /** @var list<string> $given */
        $given = $this->input->getOption('parameter');
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
