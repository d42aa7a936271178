<?php

declare(strict_types=1);

namespace App\Models;

use App\Problems\ContentPurged;
use Brick\Math\BigDecimal;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Support\Carbon;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Reading;

/**
 * What one side handed over at one time, kept byte for byte: one or more parts.
 *
 * @phpstan-import-type FormatDocument from PartFormat
 *
 * @phpstan-type Claim array{about: 'rows'|'sum', column: string|null, from: string, claimed: string, arrived: string, unreadable: int,
 *     holds: bool}
 *
 * @property int $id
 * @property int $dataset_id
 * @property Side $side
 * @property int $number
 * @property string $file_name
 * @property string $digest SHA-256 of the bytes; of several parts, of their digests
 * @property int $bytes
 * @property FormatDocument $format of the first part
 * @property list<string> $columns
 * @property int $read_count
 * @property int $refused_count
 * @property int $delivered_count
 * @property Carbon $delivered_at
 * @property string|null $part_label_column the column that holds the label of the part, if one does
 * @property Carbon|null $as_of the moment that the extract shows, as the deliverer says
 * @property int|null $rows_claimed the deliverer's own count
 * @property list<Claim> $claims what the deliverer says of it, each held against what arrived
 * @property-read User $user
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ClaimExplanation> $explanations
 * @property-read \Illuminate\Database\Eloquent\Collection<int, DeliveryPart> $parts
 * @property-read Dataset $dataset
 * @property-read Purge|null $purge
 */
final class Delivery extends Model
{
    /** Where a figure that a person typed in comes from: it is of the whole delivery, as that of a last record is of its part. */
    public const BY_HAND = 'by hand';

    public $timestamps = false;

    protected $guarded = [];

    protected $attributes = ['claims' => '[]'];

    protected $casts = [
        'side' => Side::class,
        'format' => 'array',
        'columns' => 'array',
        'bytes' => 'integer',
        'read_count' => 'integer',
        'refused_count' => 'integer',
        'delivered_count' => 'integer',
        'delivered_at' => 'immutable_datetime',
        'as_of' => 'immutable_datetime',
        'rows_claimed' => 'integer',
        'claims' => 'array',
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

    /** @return HasMany<DeliveryPart, $this> in their order */
    public function parts(): HasMany
    {
        return $this->hasMany(DeliveryPart::class)->orderBy('number');
    }

    /** @return HasOne<Purge, $this> that its content is gone */
    public function purge(): HasOne
    {
        return $this->hasOne(Purge::class);
    }

    /** @throws ContentPurged when its bytes are gone */
    public function mustHaveContent(): void
    {
        $purge = $this->purge()->with('user')->first();
        if ($purge !== null) {
            throw ContentPurged::of(
                "{$this->side->value} delivery {$this->number} of {$this->dataset->name}",
                $purge,
                'Its name, hash and counts stay. Deliver again to go on.',
            );
        }
    }

    /** @return HasMany<ClaimExplanation, $this> in the order in which they were given */
    public function explanations(): HasMany
    {
        return $this->hasMany(ClaimExplanation::class)->orderBy('id');
    }

    /** @return HasMany<Tally, $this> that compared it */
    public function tallies(): HasMany
    {
        return $this->hasMany(Tally::class, "{$this->side->value}_delivery_id");
    }

    public function namedColumns(): Columns
    {
        return Columns::named($this->file_name, $this->columns);
    }

    /** @param string $claimed as the deliverer wrote it, which may have blanks within and noughts before it; null for what is no number */
    public static function figureOf(string $claimed): ?BigDecimal
    {
        return (new Reading)->number((string) preg_replace(['/\s/u', '/^([+-]?)0+(?=\d)/'], ['', '$1'], $claimed))?->toBigDecimal();
    }
}
