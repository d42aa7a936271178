<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Row\Side;

/** A row that did not agree, as it is written aside until its place among the findings is known. Rows stay bytes. */
final readonly class FindingEntry
{
    private const FIELDS = 14;

    /** So many different ends of entries are remembered while they are read: changed rows differ in few ways. */
    private const MEMO = 512;

    private const MEMO_BYTES = 1_024;

    /** Stands where a side has no row. */
    private const NONE = "\xFD";

    /**
     * @param  int  $line  by which the findings of a side are ordered
     * @param  Side|null  $side  null when both sides met
     * @param  string  $key  bytes of the canonical key; '' when there is none
     * @param  string|null  $source  the row's cells joined by Batch::CELL_END; null where the side has none
     * @param  int  $sourceRows  rows of the source with this key
     * @param  int|null  $keptLine  of a repeated row that was not kept: the line of the row that was kept
     * @param  RowReason|null  $reason  where it is known while rows are matched
     * @param  list<array{int, string, string, array<string, string|int>, string}>  $cells  of a changed row: pair, class, cause
     *     ('' while it waits for the whole column), facts, where a value moved
     * @param  array{reason: string, facts: array<string, string|int>, raw: string, digest: string}|null  $refused
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
        public ?RowReason $reason = null,
        public array $cells = [],
        public ?array $refused = null,
        public bool $isBridged = false,
    ) {}

    /** Fields between ROW_END bytes, which no cell has; what only some rows have is added as PHP writes it. */
    public function bytes(): string
    {
        $more = $this->cells === [] && $this->refused === null ? '' : serialize([$this->cells, $this->refused]);

        return implode(Batch::ROW_END, [
            $this->line,
            $this->class->value,
            $this->side->value ?? '',
            $this->key,
            $this->ordinal,
            $this->source ?? self::NONE,
            $this->target ?? self::NONE,
            $this->targetLine,
            $this->sourceRows,
            $this->targetRows,
            $this->keptLine ?? '',
            $this->reason->value ?? '',
            $this->isBridged ? '1' : '',
            $more,
        ]);
    }

    public static function fromBytes(string $bytes): self
    {
        [
            $line,
            $class,
            $side,
            $key,
            $ordinal,
            $source,
            $target,
            $targetLine,
            $sourceRows,
            $targetRows,
            $keptLine,
            $reason,
            $isBridged,
            $more,
        ] = explode(Batch::ROW_END, $bytes, self::FIELDS);
        $rest = $more === '' ? [[], null] : self::more($more);

        return new self(
            (int) $line,
            RowClass::from($class),
            $side === '' ? null : Side::from($side),
            $key,
            (int) $ordinal,
            $source === self::NONE ? null : $source,
            $target === self::NONE ? null : $target,
            (int) $targetLine,
            (int) $sourceRows,
            (int) $targetRows,
            $keptLine === '' ? null : (int) $keptLine,
            $reason === '' ? null : RowReason::from($reason),
            $rest[0],
            $rest[1],
            $isBridged === '1',
        );
    }

    /**
     * @return array{list<array{int, string, string, array<string, string|int>, string}>, array{reason: string, facts: array<string,
     *     string|int>, raw: string, digest: string}|null}
     */
    private static function more(string $bytes): array
    {
        /**
         * @var array<string, array{list<array{int, string, string, array<string, string|int>, string}>, array{reason: string,
         *     facts: array<string, string|int>, raw: string, digest: string}|null}> $memo
         */
        static $memo = [];
        if (isset($memo[$bytes])) {
            return $memo[$bytes];
        }
        /**
         * @var array{list<array{int, string, string, array<string, string|int>, string}>, array{reason: string, facts: array<string,
         *     string|int>, raw: string, digest: string}|null} $more
         */
        $more = unserialize($bytes, ['allowed_classes' => false]);
        if (strlen($bytes) > self::MEMO_BYTES) {
            return $more;
        }
        if (count($memo) === self::MEMO) {
            $memo = [];
        }

        return $memo[$bytes] = $more;
    }
}
