<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Row\Side;

/** A row that did not agree, as it is written aside until its place among the findings is known. Rows stay bytes. */
final readonly class FindingEntry
{
    /**
     * @param  int  $line  by which the findings of a side are ordered
     * @param  Side|null  $side  null when both sides met
     * @param  string  $key  bytes of the canonical key; '' when there is none
     * @param  string|null  $source  the row's cells joined by Batch::CELL_END; null where the side has none
     * @param  int  $sourceRows  rows of the source with this key
     * @param  int|null  $keptLine  of a repeated row that was dropped: the line of the row that was kept
     * @param  string  $reason  why the other side has no counterpart, as MissingReason, where it is known
     * @param  list<array{int, string, string, array<string, string|int>, string}>  $cells  of a changed row: pair, class, cause ('' while it waits for the whole column), facts, where a value moved
     * @param  array{reason: string, sentence: string, raw: string, digest: string}|null  $refused
     */
    public function __construct(
        public int $line,
        public RowClass $class,
        public ?Side $side,
        public string $key = '',
        public int $ordinal = 1,
        public ?string $source = null,
        public ?string $target = null,
        public int $targetLine = 0,
        public int $sourceRows = 0,
        public int $targetRows = 0,
        public ?int $keptLine = null,
        public string $reason = '',
        public array $cells = [],
        public ?array $refused = null,
        public bool $isBridged = false,
    ) {}

    public function bytes(): string
    {
        return serialize([$this->line, $this->class->value, $this->side?->value, $this->key, $this->ordinal, $this->source, $this->target, $this->targetLine, $this->sourceRows, $this->targetRows, $this->keptLine, $this->reason, $this->cells, $this->refused, $this->isBridged]);
    }

    public static function fromBytes(string $bytes): self
    {
        /** @var array{int, string, string|null, string, int, string|null, string|null, int, int, int, int|null, string, list<array{int, string, string, array<string, string|int>, string}>, array{reason: string, sentence: string, raw: string, digest: string}|null, bool} $fields */
        $fields = unserialize($bytes, ['allowed_classes' => false]);
        $fields[1] = RowClass::from($fields[1]);
        $fields[2] = $fields[2] === null ? null : Side::from($fields[2]);

        return new self(...$fields);
    }
}
