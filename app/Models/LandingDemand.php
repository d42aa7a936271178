<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Row\Side;

/**
 * That each row of the files that several datasets use lands in one of them alone, or that this is demanded no longer.
 *
 * @property int $id
 * @property string $files their names as canonical JSON, so that the demand outlives a delivery
 * @property bool $is_demanded
 * @property Carbon $created_at
 * @property User $user
 */
final class LandingDemand extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['is_demanded' => 'boolean'];

    /** @param list<string> $files */
    public static function enter(Migration $migration, Side $side, array $files, bool $isDemanded, User $person): self
    {
        return self::query()->create([
            'migration_id' => $migration->id,
            'side' => $side,
            'files' => CanonicalJson::of($files),
            'is_demanded' => $isDemanded,
            'user_id' => $person->id,
        ]);
    }

    /** @param list<string> $files */
    public static function standing(Migration $migration, Side $side, array $files): ?self
    {
        return self::query()
            ->with('user')
            ->where(['migration_id' => $migration->id, 'side' => $side, 'files' => CanonicalJson::of($files)])
            ->latest('id')
            ->first();
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
