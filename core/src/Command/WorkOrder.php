<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\DelimitedReader;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;
use NineTally\Core\Shape\NoReferences;
use NineTally\Core\Shape\PartStack;
use NineTally\Core\Shape\ShapedReader;
use NineTally\Core\Shape\ShapedSide;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\TallyWork;

/** What a process has to know to work on a tally: written to the workspace by the first one, read by the others. */
final readonly class WorkOrder
{
    private const FILE = 'order';

    public function __construct(
        public string $sourcePath,
        public string $sourceName,
        public string $targetPath,
        public string $targetName,
        public ?string $delimiter,
        public int $rowLimit = DelimitedReader::ROW_LIMIT,
        public TallySettings $settings = new TallySettings,
    ) {}

    public function source(): Reader
    {
        return (new ReaderCatalogue($this->rowLimit))->open($this->sourcePath, $this->sourceName, $this->delimiter);
    }

    public function target(): Reader
    {
        return (new ReaderCatalogue($this->rowLimit))->open($this->targetPath, $this->targetName, $this->delimiter);
    }

    /**
     * The side after its steps, which run once, in the process that comes first.
     *
     * @param  array<string, string>  $parameters
     *
     * @throws \NineTally\Core\Shape\UnusableStep
     */
    public function shaped(Side $side, Plan $plan, string $workspace, array $parameters = []): Reader
    {
        $reader = $side === Side::Source ? $this->source() : $this->target();
        if ($plan->side($side)->shape->isEmpty()) {
            return $reader;
        }
        $shaped = ShapedSide::in("{$workspace}/shaped-{$side->value}");
        if (! $shaped->isWhole()) {
            $shaped->make(new PartStack([['reader' => $reader, 'origin' => $reader->name()]]), $plan->side($side)->shape, $side->value, static fn(int $bytes, int $records) => null, new NoReferences, $parameters);
        }

        return new ShapedReader($shaped, $reader->name());
    }

    public function write(string $workspace, Plan $plan): void
    {
        file_put_contents("{$workspace}/".self::FILE, serialize([$this, $plan->canonicalJson()]));
    }

    public static function read(string $workspace): TallyWork
    {
        /** @var array{self, string} $order */
        $order = unserialize((string) file_get_contents("{$workspace}/".self::FILE), ['allowed_classes' => [self::class, TallySettings::class]]);

        $plan = Plan::fromJson($order[1]);

        return new TallyWork($plan, $order[0]->shaped(Side::Source, $plan, $workspace), $order[0]->shaped(Side::Target, $plan, $workspace), $workspace, $order[0]->settings);
    }
}
