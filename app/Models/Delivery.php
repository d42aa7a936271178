<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use NineTally\Core\Intake\DelimitedFormat;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;

/**
 * What one side handed over at one time, kept byte for byte.
 *
 * @property int $id
 * @property int $dataset_id
 * @property Side $side
 * @property int $number
 * @property string $file_name
 * @property string $digest SHA-256 of the bytes
 * @property int $bytes
 * @property array{delimiter: string, lineEnds: string, byteOrderMark: bool, encoding?: string} $format
 * @property list<string> $columns
 * @property int $read_count
 * @property int $refused_count
 * @property int $delivered_count
 * @property Carbon $delivered_at
 * @property-read User $user
 * @property-read Dataset $dataset
 */
final class Delivery extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = [
        'side' => Side::class,
        'format' => 'array',
        'columns' => 'array',
        'bytes' => 'integer',
        'read_count' => 'integer',
        'refused_count' => 'integer',
        'delivered_count' => 'integer',
        'delivered_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return HasMany<RefusedRecord, $this> */
    public function refusedRecords(): HasMany
    {
        return $this->hasMany(RefusedRecord::class);
    }

    public function delimitedFormat(): DelimitedFormat
    {
        return DelimitedFormat::fromArray($this->format);
    }

    public function namedColumns(): Columns
    {
        return Columns::named($this->file_name, $this->columns);
    }
}
