<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Delimited\QuoteSign;
use NineTally\Core\Intake\Encoding;
use NineTally\Core\Intake\FixedWidth\FixedWidthFormat;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Intake\SheetPlace;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Preparation\ReferenceShelf;
use NineTally\Core\Records\RecordSource;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Totals\DeliveredSource;

/** What a process has to know to work on a tally: written to the workspace by the first one, read by the others. */
final readonly class WorkOrder implements DeliveredSource, RecordSource
{
    /** What an order is made of, and nothing else is read. */
    private const WRITTEN = [
        self::class, TallySettings::class, SideOption::class, PartOption::class, PartFormat::class, PartKind::class,
        DelimitedFormat::class, FixedWidthFormat::class, SheetPlace::class, LineEnds::class, Encoding::class, QuoteSign::class,
    ];

    private const FILE = 'order';

    /**
     * @param  array<string, SideOption>  $references  by name
     * @param  array<string, array<string, SideOption>>  $records  of other datasets, by name and side
     */
    public function __construct(
        public SideOption $sourceParts,
        public SideOption $targetParts,
        public array $references = [],
        public ?string $delimiter = null,
        public int $rowLimit = DelimitedReader::ROW_LIMIT,
        public TallySettings $settings = new TallySettings,
        public array $records = [],
    ) {}

    public function delivered(Side $side): PartStack
    {
        return $this->parts($side)->stack($this->catalogue(), $this->delimiter);
    }

    public function deliveredColumns(Side $side): Columns
    {
        return Columns::named($side->value, $this->delivered($side)->columns);
    }

    /** Of the other side, where that is all there is. */
    public function stack(string $dataset, Side $side): ?PartStack
    {
        $sides = $this->records[$dataset] ?? [];

        return ($sides[$side->value] ?? $sides[$side->other()->value] ?? null)?->stack($this->catalogue(), $this->delimiter);
    }

    /** The columns of a side as delivered: what a plan by names is made of. */
    public function columns(Side $side): Columns
    {
        $parts = $this->parts($side);

        return $parts->isOneFile()
            ? $parts->reader($this->catalogue(), $this->delimiter)->columns()
            : \NineTally\Core\Row\Columns::named($parts->parts[0]->name, $parts->stack($this->catalogue(), $this->delimiter)->columns);
    }

    /**
     * The side after its steps, which run once, in the process that comes first.
     *
     * @param  array<string, string>  $parameters
     *
     * @throws \NineTally\Core\Preparation\UnusableStep
     */
    public function prepared(Side $side, Plan $plan, string $workspace, array $parameters = []): Reader
    {
        [$parts, $preparation] = [$this->parts($side), $plan->side($side)->preparation];
        if ($preparation->isEmpty() && $parts->isOneFile()) {
            return $parts->reader($this->catalogue(), $this->delimiter);
        }
        $prepared = PreparedSide::in("{$workspace}/prepared-{$side->value}");
        if (! $prepared->isWhole()) {
            $deliveries = array_map(
                fn(SideOption $reference): \Closure => fn(): PartStack => $reference->stack($this->catalogue(), $this->delimiter),
                $this->references,
            );
            $prepared->make(
                $parts->stack($this->catalogue(), $this->delimiter),
                $preparation,
                $side->value,
                static fn(int $bytes, int $records) => null,
                new ReferenceShelf($deliveries, $plan->references, $workspace, $parameters),
                $parameters,
            );
        }

        return new PreparedReader($prepared, $parts->parts[0]->name);
    }

    public function write(string $workspace, Plan $plan): void
    {
        file_put_contents("{$workspace}/".self::FILE, serialize([$this, $plan->canonicalJson()]));
    }

    /** @return array{self, Plan} */
    public static function open(string $workspace): array
    {
        /** @var array{self, string} $order */
        $order = unserialize((string) file_get_contents("{$workspace}/".self::FILE), [
            'allowed_classes' => self::WRITTEN,
        ]);

        return [$order[0], Plan::fromJson($order[1])];
    }

    public static function read(string $workspace): TallyWork
    {
        [$order, $plan] = self::open($workspace);

        return new TallyWork($plan, $order->readers($plan, $workspace), $workspace, $order->settings);
    }

    /** @return Sides<Reader> both sides after their steps */
    public function readers(Plan $plan, string $workspace): Sides
    {
        return Sides::each(fn(Side $side): Reader => $this->prepared($side, $plan, $workspace));
    }

    private function parts(Side $side): SideOption
    {
        return $side === Side::Source ? $this->sourceParts : $this->targetParts;
    }

    private function catalogue(): ReaderCatalogue
    {
        return new ReaderCatalogue($this->rowLimit);
    }
}
