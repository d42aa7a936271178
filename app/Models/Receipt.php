<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Row\Side;

/**
 * A file on its way to become a delivery: its chunks arrive, what was found is shown and corrected, then it is read whole.
 *
 * @phpstan-import-type FormatDocument from PartFormat
 *
 * @phpstan-type TermsDocument array{partLabels?: array<string, string>, partLabelColumn?: string|null, asOf?: string|null,
 *     rowsClaimed?: int|null, totals?: array<string, string>, trailers?: array<string, array{rows: int|null, totals: array<string, int>}>}
 *
 * @phpstan-type InPlace array{rows: int, agreed: int, groups: int, differing: int}
 * @phpstan-type Query array{source: string, sql: string, values?: array<string, string>, at?: string, inPlace?: InPlace,
 *     isNothingNew?: true}
 *
 * @property string $id
 * @property int $dataset_id
 * @property Side $side
 * @property string $file_name
 * @property int $bytes
 * @property int $received_bytes
 * @property ReceiptState $state
 * @property array<string, string>|null $found the reasons, in words
 * @property FormatDocument|null $format
 * @property string|null $problem
 * @property string|null $digest
 * @property array{receipts: non-empty-list<string>, terms: TermsDocument}|null $taking the files that become one delivery with it, and on
 *     which terms
 * @property array{name: string, digest: string}|null $packed_in the archive that it came in
 * @property Query|null $query whose rows it holds, where it is no file
 * @property list<string>|null $unpacked_into of an archive: the receipts of its files
 * @property int $records_read
 * @property int|null $delivery_id
 * @property int $user_id
 * @property Carbon $created_at
 * @property-read Dataset $dataset
 */
final class Receipt extends Model
{
    use HasUuids;

    protected $guarded = [];

    protected $attributes = [
        'packed_in' => null,
        'query' => null,
        'unpacked_into' => null,
        'problem' => null,
        'digest' => null,
        'found' => null,
        'format' => null,
        'taking' => null,
        'delivery_id' => null,
    ];

    protected $casts = [
        'side' => Side::class,
        'state' => ReceiptState::class,
        'bytes' => 'integer',
        'received_bytes' => 'integer',
        'records_read' => 'integer',
        'found' => 'array',
        'format' => 'array',
        'taking' => 'array',
        'packed_in' => 'array',
        'query' => 'array',
        'unpacked_into' => 'array',
    ];

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }

    /** Whether all bytes are here; what they are may not have been looked at yet. */
    public function isWhole(): bool
    {
        return $this->received_bytes === $this->bytes;
    }

    /** Where several sheets of a workbook are parts: so that a record is known by where it stands. */
    public static function nameOfSheet(string $workbook, string $sheet): string
    {
        return "{$workbook}, sheet {$sheet}";
    }

    /** What the file is called, whichever of its sheets is read. */
    public function workbookName(): string
    {
        $ending = self::nameOfSheet('', $this->partFormat()->sheet);

        return str_ends_with($this->file_name, $ending) ? substr($this->file_name, 0, -strlen($ending)) : $this->file_name;
    }

    public function partFormat(): PartFormat
    {
        return PartFormat::fromArray($this->format ?? throw new \LogicException('The file has not been looked at yet.'));
    }
}
