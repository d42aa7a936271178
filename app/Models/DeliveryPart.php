<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use NineTally\Core\Intake\PartFormat;

/**
 * One file of a delivery.
 *
 * @phpstan-import-type FormatDocument from PartFormat
 *
 * @phpstan-import-type Query from Receipt
 *
 * @property int $delivery_id
 * @property int $number from 1
 * @property string $file_name
 * @property string $part_label the label of its rows
 * @property string $digest SHA-256 of the bytes
 * @property int $bytes
 * @property FormatDocument $format
 * @property array{name: string, digest: string}|null $packed_in the archive that it came in
 * @property Query|null $query whose rows it holds
 * @property list<string> $columns
 * @property array<'LF'|'CRLF'|'CR', positive-int>|null $line_ends by what its records end, the most frequent first; null where they have no
 *     lines, or were not counted
 * @property int $read_count
 * @property int $refused_count
 * @property int $delivered_count
 * @property-read Delivery $delivery
 */
final class DeliveryPart extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'delivery_id';

    protected $guarded = [];

    protected $casts = [
        'format' => 'array',
        'columns' => 'array',
        'packed_in' => 'array',
        'query' => 'array',
        'line_ends' => 'array',
        'number' => 'integer',
        'bytes' => 'integer',
        'read_count' => 'integer',
        'refused_count' => 'integer',
        'delivered_count' => 'integer',
    ];

    /** @return BelongsTo<Delivery, $this> */
    public function delivery(): BelongsTo
    {
        return $this->belongsTo(Delivery::class);
    }

    public function partFormat(): PartFormat
    {
        return PartFormat::fromArray($this->format);
    }
}
