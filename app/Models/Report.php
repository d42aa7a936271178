<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A report as it was printed, kept by the digests of its HTML and PDF.
 *
 * @property int $id
 * @property int $tally_id
 * @property int $number
 * @property string $html_digest
 * @property string $pdf_digest
 * @property-read Tally $tally
 */
final class Report extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    /** @return BelongsTo<Tally, $this> */
    public function tally(): BelongsTo
    {
        return $this->belongsTo(Tally::class);
    }
}
