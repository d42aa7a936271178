<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\Receipt;
use App\Models\Tally;
use App\Models\User;
use App\Problems\ValuesAreMasked;
use App\Queries\Review\Masks;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * For what holds values as they are, and is of no use without them: kept from whoever values are masked for now.
 */
final readonly class RequiresUnmaskedAccess
{
    public function __construct(private Masks $masks) {}

    /** @param Closure(Request): Response $next */
    public function handle(Request $request, Closure $next): Response
    {
        [$person, $owned] = [$request->user(), $request->route('delivery') ?? ($request->route('receipt') ?? $request->route('tally'))];
        $dataset =
            $owned instanceof Delivery || $owned instanceof Receipt || $owned instanceof Tally
                ? $owned->dataset
                : $request->route('dataset');
        if ($person instanceof User && $dataset instanceof Dataset && $this->masks->keepsDeliveredFrom($person, $dataset)) {
            throw new ValuesAreMasked(
                'This dataset has sensitive columns, and this holds their values as they are. Show the sensitive values first, if your '.
                    'role may see them; everything else can be seen and taken masked.',
            );
        }

        return $next($request);
    }
}
