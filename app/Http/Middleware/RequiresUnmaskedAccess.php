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
 * Where rows are shown as they were delivered or prepared nothing is masked: whoever may not see sensitive values is kept out, if the
 * dataset has some.
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
                'This dataset has sensitive columns, and here their values would stand as they were delivered. With your role you see it '.
                    'in Review, where they are masked.',
            );
        }

        return $next($request);
    }
}
