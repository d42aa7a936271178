<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * The page of the report as it was when somebody accepted the tally.
 *
 * @property int $signature_id
 * @property string $html_digest
 */
final class SignedPage extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'signature_id';

    protected $guarded = [];

    /** @return self|null null where the tally is not accepted, or not any more */
    public static function standing(int $tallyId): ?self
    {
        $last = Signature::query()->where('tally_id', $tallyId)->latest('id')->first();

        return $last?->act === SignatureAct::Accepted ? self::query()->find($last->id) : null;
    }
}
