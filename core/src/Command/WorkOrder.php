<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\DelimitedReader;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Plan\Plan;
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

    public function write(string $workspace, Plan $plan): void
    {
        file_put_contents("{$workspace}/".self::FILE, serialize([$this, $plan->canonicalJson()]));
    }

    public static function read(string $workspace): TallyWork
    {
        /** @var array{self, string} $order */
        $order = unserialize((string) file_get_contents("{$workspace}/".self::FILE), ['allowed_classes' => [self::class, TallySettings::class]]);

        return new TallyWork(Plan::fromJson($order[1]), $order[0]->source(), $order[0]->target(), $workspace, $order[0]->settings);
    }
}
