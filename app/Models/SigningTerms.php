<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use NineTally\Core\Limits\Limit;

/**
 * What counts for signing in a migration: the limits that its datasets inherit, and which duties are apart. Entered anew with each change;
 * a run keeps those that stood when it began.
 *
 * @phpstan-import-type LimitDocument from Limit
 *
 * @phpstan-type Terms array{limits: list<LimitDocument>, needsCheck: bool, maySignTwice: bool, mayAcceptOwn: bool, mayLink?: bool}
 *
 * @property int $id
 * @property int $migration_id
 * @property Terms $terms
 * @property Carbon $created_at
 * @property-read User $user
 */
final class SigningTerms extends Model
{
    public const UPDATED_AT = null;

    /** What counts before anybody said anything. */
    public const FIRST = ['limits' => [], 'needsCheck' => true, 'maySignTwice' => false, 'mayAcceptOwn' => false, 'mayLink' => false];

    protected $table = 'signing_terms';

    protected $guarded = [];

    protected $casts = ['terms' => 'array'];

    /** @return Terms */
    public static function of(Migration $migration): array
    {
        return $migration->loadMissing('signingTerms')->signingTerms->terms ?? self::FIRST;
    }

    /** @return list<Limit> */
    public function limits(): array
    {
        return array_map(Limit::fromArray(...), $this->terms['limits']);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
