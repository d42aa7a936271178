<?php

declare(strict_types=1);

namespace App\Models;

use App\Policies\Act;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Limits\LimitList;

/**
 * What counts for signing in a migration: the limits that its datasets inherit, which duties are apart, who sees reports, and how long
 * content and packs are kept. Entered anew with each change; a run keeps those that stood when it began.
 *
 * @phpstan-import-type LimitDocument from Limit
 *
 * @phpstan-type Terms array{limits: list<LimitDocument>, needsCheck: bool, maySignTwice: bool, mayAcceptOwn: bool, mayLink: bool,
 *     reportsFor: list<string>, contentMonths: int|null, packMonths: int|null}
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
    public const FIRST = [
        'limits' => [],
        'needsCheck' => true,
        'maySignTwice' => false,
        'mayAcceptOwn' => false,
        'mayLink' => false,
        'reportsFor' => ['viewer', 'auditor'],
        'contentMonths' => null,
        'packMonths' => null,
    ];

    protected $table = 'signing_terms';

    protected $guarded = [];

    protected $casts = ['terms' => 'array'];

    /** @return Terms */
    public static function of(Migration $migration): array
    {
        return $migration->loadMissing('signingTerms')->signingTerms?->whole() ?? self::FIRST;
    }

    /** @return Terms also of those that were said before there were as many */
    public function whole(): array
    {
        return $this->terms + self::FIRST;
    }

    /**
     * @param  Terms  $before
     * @param  Terms  $after
     * @return list<string> what changed, as it was and as it is
     */
    public static function changes(array $before, array $after): array
    {
        $words = static fn(mixed $one): string => match (true) {
            is_bool($one) => $one ? 'yes' : 'no',
            is_array($one) => implode(', ', array_filter($one, is_string(...))) ?: 'nobody',
            is_int($one) => (string) $one,
            default => 'none',
        };
        $changes = LimitList::changes(
            array_map(Limit::fromArray(...), $before['limits']),
            array_map(Limit::fromArray(...), $after['limits']),
        );
        $named = [
            'needsCheck' => 'a test manager checks',
            'maySignTwice' => 'one person may sign twice',
            'mayAcceptOwn' => 'own rulings may be accepted',
            'mayLink' => 'reports may be linked',
            'reportsFor' => 'reports are also for',
            'contentMonths' => 'months that content is kept',
            'packMonths' => 'months that packs are kept',
        ];
        foreach ($named as $name => $what) {
            if ($before[$name] !== $after[$name]) {
                $changes[] = "{$what}: {$words($before[$name])} → {$words($after[$name])}";
            }
        }

        return $changes;
    }

    /** Whether somebody may see reports and packs: whoever can sign always may. */
    public static function letsSeeReports(Migration $migration, ?Role $role): bool
    {
        return Act::Sign->isFor($role) || in_array($role?->value, self::of($migration)['reportsFor'], true);
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
