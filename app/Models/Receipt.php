<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use NineTally\Core\Intake\DelimitedFormat;
use NineTally\Core\Row\Side;

/**
 * A file on its way to become a delivery: its pieces arrive, what was found is shown and corrected, then it is read whole.
 *
 * @property string $id
 * @property int $dataset_id
 * @property Side $side
 * @property string $file_name
 * @property int $bytes
 * @property int $received_bytes
 * @property ReceiptState $state
 * @property array{delimiter: string, lineEnds: string, encoding: string}|null $found the reasons, in words
 * @property array{delimiter: string, lineEnds: string, byteOrderMark: bool, encoding?: string}|null $format
 * @property string|null $problem
 * @property string|null $digest
 * @property int $records_read
 * @property int|null $delivery_id
 * @property int $user_id
 * @property-read Dataset $dataset
 */
final class Receipt extends Model
{
    use HasUuids;

    protected $guarded = [];

    protected $casts = [
        'side' => Side::class,
        'state' => ReceiptState::class,
        'bytes' => 'integer',
        'received_bytes' => 'integer',
        'records_read' => 'integer',
        'found' => 'array',
        'format' => 'array',
    ];

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }

    public function delimitedFormat(): ?DelimitedFormat
    {
        return $this->format === null ? null : DelimitedFormat::fromArray($this->format);
    }
}
